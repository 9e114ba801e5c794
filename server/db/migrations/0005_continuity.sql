CREATE TABLE `continuity_reading` (
	`id` binary(16) NOT NULL,
	`job_id` binary(16) NOT NULL,
	`engine_state` int NOT NULL,
	`point` varchar(90) NOT NULL,
	`place` varchar(10) NOT NULL,
	`reading` json NOT NULL,
	`words` varchar(200) NOT NULL,
	`author_id` binary(16) NOT NULL,
	`captured_at` datetime(3) NOT NULL,
	`received_at` datetime(3) NOT NULL,
	CONSTRAINT `continuity_reading_id` PRIMARY KEY(`id`)
);
--> statement-breakpoint
ALTER TABLE `continuity_reading` ADD CONSTRAINT `continuity_reading_job_id_job_id_fk` FOREIGN KEY (`job_id`) REFERENCES `job`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `continuity_reading` ADD CONSTRAINT `continuity_reading_author_id_person_id_fk` FOREIGN KEY (`author_id`) REFERENCES `person`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE INDEX `continuity_reading_job` ON `continuity_reading` (`job_id`);