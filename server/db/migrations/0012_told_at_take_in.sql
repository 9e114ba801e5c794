ALTER TABLE `job` ADD `told` json;--> statement-breakpoint
ALTER TABLE `job` ADD `past` json;