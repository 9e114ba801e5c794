CREATE TABLE `parcel` (
	`id` binary(16) NOT NULL,
	`owner_id` binary(16) NOT NULL,
	`arrived_on` date NOT NULL,
	`came` varchar(200) NOT NULL,
	`condition_on_arrival` text NOT NULL,
	`items` json NOT NULL,
	`packed` json NOT NULL,
	`sent_back_on` date,
	`remarks` varchar(400) NOT NULL,
	`version` int NOT NULL DEFAULT 1,
	CONSTRAINT `parcel_id` PRIMARY KEY(`id`)
);
--> statement-breakpoint
ALTER TABLE `job` ADD `parcel_id` binary(16);--> statement-breakpoint
ALTER TABLE `parcel` ADD CONSTRAINT `parcel_owner_id_owner_id_fk` FOREIGN KEY (`owner_id`) REFERENCES `owner`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE INDEX `parcel_owner` ON `parcel` (`owner_id`);--> statement-breakpoint
CREATE INDEX `parcel_here` ON `parcel` (`sent_back_on`,`arrived_on`);--> statement-breakpoint
ALTER TABLE `job` ADD CONSTRAINT `job_parcel_id_parcel_id_fk` FOREIGN KEY (`parcel_id`) REFERENCES `parcel`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE INDEX `job_parcel` ON `job` (`parcel_id`);