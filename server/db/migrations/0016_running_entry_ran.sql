CREATE INDEX `running_entry_ran` ON `running_entry` (`engine_id`,`day`,`hours`,`show_name`);--> statement-breakpoint
DROP INDEX `running_entry_engine` ON `running_entry`;
