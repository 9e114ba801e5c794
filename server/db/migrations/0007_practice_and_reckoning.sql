CREATE TABLE `search_reckoning` (
	`id` binary(16) NOT NULL,
	`job_id` binary(16) NOT NULL,
	`reckoned` json,
	`reckoned_at` datetime(3),
	CONSTRAINT `search_reckoning_id` PRIMARY KEY(`id`)
);
--> statement-breakpoint
CREATE TABLE `type_knowledge` (
	`id` binary(16) NOT NULL,
	`changes` json NOT NULL,
	`version` int NOT NULL DEFAULT 1,
	CONSTRAINT `type_knowledge_id` PRIMARY KEY(`id`)
);
--> statement-breakpoint
ALTER TABLE `search_reckoning` ADD CONSTRAINT `search_reckoning_id_search_entry_id_fk` FOREIGN KEY (`id`) REFERENCES `search_entry`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `search_reckoning` ADD CONSTRAINT `search_reckoning_job_id_job_id_fk` FOREIGN KEY (`job_id`) REFERENCES `job`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `type_knowledge` ADD CONSTRAINT `type_knowledge_id_engine_type_id_fk` FOREIGN KEY (`id`) REFERENCES `engine_type`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE INDEX `search_reckoning_job` ON `search_reckoning` (`job_id`);