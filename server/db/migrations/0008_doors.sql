CREATE TABLE `session` (
	`id` binary(16) NOT NULL,
	`person_id` binary(16) NOT NULL,
	`started_at` datetime(3) NOT NULL,
	`last_seen_at` datetime(3) NOT NULL,
	CONSTRAINT `session_id` PRIMARY KEY(`id`)
);
--> statement-breakpoint
CREATE TABLE `sign_in_try` (
	`key` varchar(255) NOT NULL,
	`points` int NOT NULL DEFAULT 0,
	`expire` bigint unsigned,
	CONSTRAINT `sign_in_try_key` PRIMARY KEY(`key`)
);
--> statement-breakpoint
ALTER TABLE `photograph` ADD `cleaned` boolean DEFAULT false NOT NULL;--> statement-breakpoint
ALTER TABLE `session` ADD CONSTRAINT `session_person_id_person_id_fk` FOREIGN KEY (`person_id`) REFERENCES `person`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE INDEX `session_person` ON `session` (`person_id`);