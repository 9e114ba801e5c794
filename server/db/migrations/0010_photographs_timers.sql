CREATE TABLE `phone_access` (
	`id` binary(16) NOT NULL,
	`token_hash` char(64) NOT NULL,
	`job_id` binary(16) NOT NULL,
	`person_id` binary(16) NOT NULL,
	`aim` json NOT NULL,
	`expires_at` datetime(3) NOT NULL,
	CONSTRAINT `phone_access_id` PRIMARY KEY(`id`),
	CONSTRAINT `phone_access_token_hash_unique` UNIQUE(`token_hash`)
);
--> statement-breakpoint
CREATE TABLE `timer` (
	`id` binary(16) NOT NULL,
	`job_id` binary(16),
	`station` varchar(20),
	`label` varchar(120) NOT NULL,
	`ends_at` datetime(3) NOT NULL,
	`stopped` boolean NOT NULL DEFAULT false,
	CONSTRAINT `timer_id` PRIMARY KEY(`id`)
);
--> statement-breakpoint
ALTER TABLE `photograph` ADD `about` json;--> statement-breakpoint
ALTER TABLE `photograph` ADD `marks` json;--> statement-breakpoint
ALTER TABLE `photograph` ADD `version` int DEFAULT 1 NOT NULL;--> statement-breakpoint
ALTER TABLE `phone_access` ADD CONSTRAINT `phone_access_job_id_job_id_fk` FOREIGN KEY (`job_id`) REFERENCES `job`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `phone_access` ADD CONSTRAINT `phone_access_person_id_person_id_fk` FOREIGN KEY (`person_id`) REFERENCES `person`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `timer` ADD CONSTRAINT `timer_job_id_job_id_fk` FOREIGN KEY (`job_id`) REFERENCES `job`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE INDEX `phone_access_expires` ON `phone_access` (`expires_at`);--> statement-breakpoint
CREATE INDEX `timer_stopped` ON `timer` (`stopped`);