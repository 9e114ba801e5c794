CREATE TABLE `strip_entry` (
	`id` binary(16) NOT NULL,
	`job_id` binary(16) NOT NULL,
	`entry` json NOT NULL,
	`author_id` binary(16) NOT NULL,
	`captured_at` datetime(3) NOT NULL,
	`received_at` datetime(3) NOT NULL,
	CONSTRAINT `strip_entry_id` PRIMARY KEY(`id`)
);
--> statement-breakpoint
ALTER TABLE `strip_entry` ADD CONSTRAINT `strip_entry_job_id_job_id_fk` FOREIGN KEY (`job_id`) REFERENCES `job`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `strip_entry` ADD CONSTRAINT `strip_entry_author_id_person_id_fk` FOREIGN KEY (`author_id`) REFERENCES `person`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE INDEX `strip_entry_job` ON `strip_entry` (`job_id`);--> statement-breakpoint
UPDATE `construction_template` SET `description` = REPLACE(`description`, '"bakelite"', '"phenolic-resin"') WHERE `description` LIKE '%"bakelite"%';
--> statement-breakpoint
UPDATE `engine_type` SET `adaptations` = REPLACE(`adaptations`, '"bakelite"', '"phenolic-resin"') WHERE `adaptations` LIKE '%"bakelite"%';
--> statement-breakpoint
UPDATE `engine` SET `adaptations` = REPLACE(`adaptations`, '"bakelite"', '"phenolic-resin"') WHERE `adaptations` LIKE '%"bakelite"%';
