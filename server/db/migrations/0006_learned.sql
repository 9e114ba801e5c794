CREATE TABLE `learned` (
	`id` binary(16) NOT NULL,
	`job_id` binary(16),
	`type_id` binary(16),
	`construction` varchar(60),
	`suspects` json NOT NULL,
	`withdrawn` boolean NOT NULL,
	`author_id` binary(16) NOT NULL,
	`captured_at` datetime(3) NOT NULL,
	`received_at` datetime(3) NOT NULL,
	CONSTRAINT `learned_id` PRIMARY KEY(`id`)
);
--> statement-breakpoint
ALTER TABLE `learned` ADD CONSTRAINT `learned_job_id_job_id_fk` FOREIGN KEY (`job_id`) REFERENCES `job`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `learned` ADD CONSTRAINT `learned_type_id_engine_type_id_fk` FOREIGN KEY (`type_id`) REFERENCES `engine_type`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `learned` ADD CONSTRAINT `learned_author_id_person_id_fk` FOREIGN KEY (`author_id`) REFERENCES `person`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE INDEX `learned_construction` ON `learned` (`construction`,`received_at`);--> statement-breakpoint
CREATE INDEX `learned_job` ON `learned` (`job_id`);