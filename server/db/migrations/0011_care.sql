CREATE TABLE `care_entry` (
	`id` binary(16) NOT NULL,
	`job_id` binary(16) NOT NULL,
	`entry` json NOT NULL,
	`author_id` binary(16) NOT NULL,
	`captured_at` datetime(3) NOT NULL,
	`received_at` datetime(3) NOT NULL,
	CONSTRAINT `care_entry_id` PRIMARY KEY(`id`)
);
--> statement-breakpoint
CREATE TABLE `calendar_feed` (
	`id` binary(16) NOT NULL,
	`token_hash` char(64) NOT NULL,
	`person_id` binary(16) NOT NULL,
	`made_at` datetime(3) NOT NULL,
	`revoked` boolean NOT NULL DEFAULT false,
	CONSTRAINT `calendar_feed_id` PRIMARY KEY(`id`),
	CONSTRAINT `calendar_feed_token_hash_unique` UNIQUE(`token_hash`)
);
--> statement-breakpoint
CREATE TABLE `running_entry` (
	`id` binary(16) NOT NULL,
	`booking_id` binary(16) NOT NULL,
	`engine_id` binary(16) NOT NULL,
	`day` date NOT NULL,
	`hours` double NOT NULL,
	`meter` double,
	`show_name` varchar(120) NOT NULL,
	`author_id` binary(16) NOT NULL,
	`captured_at` datetime(3) NOT NULL,
	CONSTRAINT `running_entry_id` PRIMARY KEY(`id`),
	CONSTRAINT `running_entry_once` UNIQUE(`booking_id`,`engine_id`)
);
--> statement-breakpoint
CREATE TABLE `shelf_product` (
	`id` binary(16) NOT NULL,
	`name` varchar(80) NOT NULL,
	`product` varchar(60) NOT NULL,
	`labelled` varchar(20) NOT NULL,
	`left_over` varchar(10) NOT NULL,
	`opened_on` date,
	`notes` text NOT NULL,
	`version` int NOT NULL DEFAULT 1,
	CONSTRAINT `shelf_product_id` PRIMARY KEY(`id`)
);
--> statement-breakpoint
ALTER TABLE `care_entry` ADD CONSTRAINT `care_entry_job_id_job_id_fk` FOREIGN KEY (`job_id`) REFERENCES `job`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `care_entry` ADD CONSTRAINT `care_entry_author_id_person_id_fk` FOREIGN KEY (`author_id`) REFERENCES `person`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `calendar_feed` ADD CONSTRAINT `calendar_feed_person_id_person_id_fk` FOREIGN KEY (`person_id`) REFERENCES `person`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `running_entry` ADD CONSTRAINT `running_entry_engine_id_engine_id_fk` FOREIGN KEY (`engine_id`) REFERENCES `engine`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `running_entry` ADD CONSTRAINT `running_entry_author_id_person_id_fk` FOREIGN KEY (`author_id`) REFERENCES `person`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE INDEX `care_entry_job` ON `care_entry` (`job_id`);--> statement-breakpoint
CREATE INDEX `running_entry_engine` ON `running_entry` (`engine_id`,`day`);