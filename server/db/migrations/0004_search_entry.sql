CREATE TABLE `search_entry` (
	`id` binary(16) NOT NULL,
	`job_id` binary(16) NOT NULL,
	`engine_state` int NOT NULL,
	`entry` json NOT NULL,
	`author_id` binary(16) NOT NULL,
	`captured_at` datetime(3) NOT NULL,
	`received_at` datetime(3) NOT NULL,
	CONSTRAINT `search_entry_id` PRIMARY KEY(`id`)
);
--> statement-breakpoint
ALTER TABLE `search_entry` ADD CONSTRAINT `search_entry_job_id_job_id_fk` FOREIGN KEY (`job_id`) REFERENCES `job`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `search_entry` ADD CONSTRAINT `search_entry_author_id_person_id_fk` FOREIGN KEY (`author_id`) REFERENCES `person`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE INDEX `search_entry_job` ON `search_entry` (`job_id`);