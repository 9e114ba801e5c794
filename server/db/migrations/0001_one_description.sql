CREATE TABLE `construction_template` (
	`id` binary(16) NOT NULL,
	`name` varchar(120) NOT NULL,
	`description` json NOT NULL,
	`version` int NOT NULL DEFAULT 1,
	CONSTRAINT `construction_template_id` PRIMARY KEY(`id`)
);
--> statement-breakpoint
ALTER TABLE `engine` ADD `adaptations` json DEFAULT ('[]') NOT NULL;--> statement-breakpoint
ALTER TABLE `engine_type` ADD `template_id` binary(16);--> statement-breakpoint
ALTER TABLE `engine_type` ADD `adaptations` json DEFAULT ('[]') NOT NULL;--> statement-breakpoint
CREATE INDEX `construction_template_name` ON `construction_template` (`name`);--> statement-breakpoint
ALTER TABLE `engine_type` ADD CONSTRAINT `engine_type_template_id_construction_template_id_fk` FOREIGN KEY (`template_id`) REFERENCES `construction_template`(`id`) ON DELETE no action ON UPDATE no action;