CREATE TABLE `component` (
	`id` binary(16) NOT NULL,
	`engine_id` binary(16) NOT NULL,
	`kind` varchar(20) NOT NULL,
	`description` varchar(200) NOT NULL,
	`fitted_on` date,
	`removed_on` date,
	`notes` varchar(400) NOT NULL,
	`version` int NOT NULL DEFAULT 1,
	CONSTRAINT `component_id` PRIMARY KEY(`id`)
);
--> statement-breakpoint
CREATE TABLE `counter` (
	`name` varchar(30) NOT NULL,
	`value` int NOT NULL,
	CONSTRAINT `counter_name` PRIMARY KEY(`name`)
);
--> statement-breakpoint
CREATE TABLE `engine` (
	`id` binary(16) NOT NULL,
	`owner_id` binary(16) NOT NULL,
	`type_id` binary(16) NOT NULL,
	`nickname` varchar(80) NOT NULL,
	`running_number` varchar(40) NOT NULL,
	`marks` varchar(300) NOT NULL,
	`condition` text NOT NULL,
	`history` text NOT NULL,
	`differences` text NOT NULL,
	`units` json NOT NULL,
	`state_number` int NOT NULL DEFAULT 0,
	`version` int NOT NULL DEFAULT 1,
	CONSTRAINT `engine_id` PRIMARY KEY(`id`)
);
--> statement-breakpoint
CREATE TABLE `engine_type` (
	`id` binary(16) NOT NULL,
	`maker` varchar(80) NOT NULL,
	`name` varchar(120) NOT NULL,
	`variant_marks` varchar(200) NOT NULL,
	`years_made` varchar(40) NOT NULL,
	`gauge_mm` double,
	`scale_id` varchar(20),
	`power` varchar(10) NOT NULL,
	`nominal_volts` double NOT NULL,
	`construction` varchar(40) NOT NULL,
	`motor_kind` varchar(20) NOT NULL,
	`poles` int,
	`gear_ratio` double,
	`wheel_diameter_mm` double,
	`pickup_layout` varchar(300) NOT NULL,
	`notes` text NOT NULL,
	`version` int NOT NULL DEFAULT 1,
	CONSTRAINT `engine_type_id` PRIMARY KEY(`id`)
);
--> statement-breakpoint
CREATE TABLE `finding` (
	`id` binary(16) NOT NULL,
	`job_id` binary(16) NOT NULL,
	`engine_state` int NOT NULL,
	`what` varchar(300) NOT NULL,
	`place` varchar(120) NOT NULL,
	`state` varchar(20) NOT NULL,
	`origin` varchar(20) NOT NULL,
	`remedy` varchar(600) NOT NULL,
	`noted_at` datetime(3) NOT NULL,
	`version` int NOT NULL DEFAULT 1,
	CONSTRAINT `finding_id` PRIMARY KEY(`id`)
);
--> statement-breakpoint
CREATE TABLE `job` (
	`id` binary(16) NOT NULL,
	`number` int NOT NULL,
	`engine_id` binary(16) NOT NULL,
	`state` varchar(20) NOT NULL,
	`station` varchar(20) NOT NULL,
	`waiting_for` varchar(200) NOT NULL,
	`complaint` varchar(1000) NOT NULL,
	`trial` varchar(400) NOT NULL,
	`trial_attempts` int NOT NULL,
	`wanted` varchar(1000) NOT NULL,
	`money_limit` int,
	`sentimental` boolean NOT NULL,
	`consent` varchar(400) NOT NULL,
	`condition_on_arrival` text NOT NULL,
	`arrivals` json NOT NULL,
	`due_on` date,
	`estimate_minutes` int,
	`taken_in_at` datetime(3) NOT NULL,
	`handed_back_at` datetime(3),
	`hand_back` json,
	`search_text` varchar(700) character set utf8mb4 collate utf8mb4_bin NOT NULL,
	`due_order` date GENERATED ALWAYS AS (ifnull(due_on, '9999-12-31')) STORED,
	`version` int NOT NULL DEFAULT 1,
	CONSTRAINT `job_id` PRIMARY KEY(`id`),
	CONSTRAINT `job_number` UNIQUE(`number`)
);
--> statement-breakpoint
CREATE TABLE `journal` (
	`sequence` int unsigned AUTO_INCREMENT NOT NULL,
	`command_id` binary(16) NOT NULL,
	`ordinal` int NOT NULL,
	`command` varchar(40) NOT NULL,
	`body_hash` char(64) NOT NULL,
	`result` json,
	`person_id` binary(16) NOT NULL,
	`subject` varchar(30) NOT NULL,
	`subject_id` varchar(60) NOT NULL,
	`job_id` binary(16),
	`summary` varchar(400) NOT NULL,
	`before` json,
	`after` json,
	`captured_at` datetime(3) NOT NULL,
	`received_at` datetime(3) NOT NULL DEFAULT current_timestamp(3),
	CONSTRAINT `journal_sequence` PRIMARY KEY(`sequence`),
	CONSTRAINT `journal_command` UNIQUE(`command_id`,`ordinal`)
);
--> statement-breakpoint
CREATE TABLE `meter` (
	`id` binary(16) NOT NULL,
	`name` varchar(120) NOT NULL,
	`measures` varchar(20) NOT NULL,
	`range_top` double NOT NULL,
	`resolution` double NOT NULL,
	`percent_of_reading` double NOT NULL,
	`digits` double NOT NULL,
	`retired` boolean NOT NULL DEFAULT false,
	`version` int NOT NULL DEFAULT 1,
	CONSTRAINT `meter_id` PRIMARY KEY(`id`)
);
--> statement-breakpoint
CREATE TABLE `note` (
	`id` binary(16) NOT NULL,
	`job_id` binary(16) NOT NULL,
	`station` varchar(20) NOT NULL,
	`text` text NOT NULL,
	`minutes` int NOT NULL,
	`author_id` binary(16) NOT NULL,
	`captured_at` datetime(3) NOT NULL,
	`received_at` datetime(3) NOT NULL,
	`supersedes_id` binary(16),
	CONSTRAINT `note_id` PRIMARY KEY(`id`)
);
--> statement-breakpoint
CREATE TABLE `owner` (
	`id` binary(16) NOT NULL,
	`name` varchar(120) NOT NULL,
	`email` varchar(160) NOT NULL,
	`phone` varchar(60) NOT NULL,
	`address` varchar(400) NOT NULL,
	`notes` text NOT NULL,
	`is_shop` boolean NOT NULL DEFAULT false,
	`version` int NOT NULL DEFAULT 1,
	CONSTRAINT `owner_id` PRIMARY KEY(`id`)
);
--> statement-breakpoint
CREATE TABLE `part_wanted` (
	`id` binary(16) NOT NULL,
	`job_id` binary(16) NOT NULL,
	`what` varchar(200) NOT NULL,
	`quantity` int NOT NULL,
	`state` varchar(20) NOT NULL,
	`price` int,
	`version` int NOT NULL DEFAULT 1,
	CONSTRAINT `part_wanted_id` PRIMARY KEY(`id`)
);
--> statement-breakpoint
CREATE TABLE `person` (
	`id` binary(16) NOT NULL,
	`sign_in_name` varchar(40) NOT NULL,
	`name` varchar(120) NOT NULL,
	`role` varchar(20) NOT NULL,
	`active` boolean NOT NULL DEFAULT true,
	`password_hash` varchar(255) NOT NULL,
	`version` int NOT NULL DEFAULT 1,
	CONSTRAINT `person_id` PRIMARY KEY(`id`),
	CONSTRAINT `person_sign_in_name` UNIQUE(`sign_in_name`)
);
--> statement-breakpoint
CREATE TABLE `photograph` (
	`id` binary(16) NOT NULL,
	`job_id` binary(16) NOT NULL,
	`station` varchar(20) NOT NULL,
	`caption` varchar(200) NOT NULL,
	`media_type` varchar(40) NOT NULL,
	`width` int NOT NULL,
	`height` int NOT NULL,
	`size` int NOT NULL,
	`sha256` char(64) NOT NULL,
	`thumbnail` mediumblob NOT NULL,
	`taken_at` datetime(3) NOT NULL,
	CONSTRAINT `photograph_id` PRIMARY KEY(`id`)
);
--> statement-breakpoint
CREATE TABLE `photograph_block` (
	`photograph_id` binary(16) NOT NULL,
	`ordinal` int NOT NULL,
	`bytes` mediumblob NOT NULL,
	CONSTRAINT `photograph_block_photograph_id_ordinal_pk` PRIMARY KEY(`photograph_id`,`ordinal`)
);
--> statement-breakpoint
CREATE TABLE `reading` (
	`id` binary(16) NOT NULL,
	`sheet_id` binary(16) NOT NULL,
	`kind` varchar(20) NOT NULL,
	`direction` varchar(10),
	`quantities` json NOT NULL,
	`vouched` boolean NOT NULL,
	`source` varchar(10) NOT NULL,
	`struck` boolean NOT NULL,
	`strike_reason` varchar(200) NOT NULL,
	`supersedes_id` binary(16),
	`author_id` binary(16) NOT NULL,
	`captured_at` datetime(3) NOT NULL,
	`received_at` datetime(3) NOT NULL,
	CONSTRAINT `reading_id` PRIMARY KEY(`id`),
	CONSTRAINT `reading_supersedes` UNIQUE(`supersedes_id`)
);
--> statement-breakpoint
CREATE TABLE `setting` (
	`key` varchar(60) NOT NULL,
	`value` json NOT NULL,
	`version` int NOT NULL DEFAULT 1,
	CONSTRAINT `setting_key` PRIMARY KEY(`key`)
);
--> statement-breakpoint
CREATE TABLE `sheet` (
	`id` binary(16) NOT NULL,
	`job_id` binary(16) NOT NULL,
	`engine_state` int NOT NULL,
	`station` varchar(20) NOT NULL,
	`with_meter` boolean NOT NULL,
	`room_celsius` double,
	`warmed_up` boolean NOT NULL,
	`supply` varchar(20) NOT NULL,
	`voltage_meter_id` binary(16),
	`current_meter_id` binary(16),
	`remarks` varchar(1000) NOT NULL,
	`opened_at` datetime(3) NOT NULL,
	`version` int NOT NULL DEFAULT 1,
	CONSTRAINT `sheet_id` PRIMARY KEY(`id`)
);
--> statement-breakpoint
ALTER TABLE `component` ADD CONSTRAINT `component_engine_id_engine_id_fk` FOREIGN KEY (`engine_id`) REFERENCES `engine`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `engine` ADD CONSTRAINT `engine_owner_id_owner_id_fk` FOREIGN KEY (`owner_id`) REFERENCES `owner`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `engine` ADD CONSTRAINT `engine_type_id_engine_type_id_fk` FOREIGN KEY (`type_id`) REFERENCES `engine_type`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `finding` ADD CONSTRAINT `finding_job_id_job_id_fk` FOREIGN KEY (`job_id`) REFERENCES `job`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `job` ADD CONSTRAINT `job_engine_id_engine_id_fk` FOREIGN KEY (`engine_id`) REFERENCES `engine`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `journal` ADD CONSTRAINT `journal_person_id_person_id_fk` FOREIGN KEY (`person_id`) REFERENCES `person`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `note` ADD CONSTRAINT `note_job_id_job_id_fk` FOREIGN KEY (`job_id`) REFERENCES `job`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `note` ADD CONSTRAINT `note_author_id_person_id_fk` FOREIGN KEY (`author_id`) REFERENCES `person`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `part_wanted` ADD CONSTRAINT `part_wanted_job_id_job_id_fk` FOREIGN KEY (`job_id`) REFERENCES `job`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `photograph` ADD CONSTRAINT `photograph_job_id_job_id_fk` FOREIGN KEY (`job_id`) REFERENCES `job`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `photograph_block` ADD CONSTRAINT `photograph_block_photograph_id_photograph_id_fk` FOREIGN KEY (`photograph_id`) REFERENCES `photograph`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `reading` ADD CONSTRAINT `reading_sheet_id_sheet_id_fk` FOREIGN KEY (`sheet_id`) REFERENCES `sheet`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `reading` ADD CONSTRAINT `reading_author_id_person_id_fk` FOREIGN KEY (`author_id`) REFERENCES `person`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `sheet` ADD CONSTRAINT `sheet_job_id_job_id_fk` FOREIGN KEY (`job_id`) REFERENCES `job`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `sheet` ADD CONSTRAINT `sheet_voltage_meter_id_meter_id_fk` FOREIGN KEY (`voltage_meter_id`) REFERENCES `meter`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `sheet` ADD CONSTRAINT `sheet_current_meter_id_meter_id_fk` FOREIGN KEY (`current_meter_id`) REFERENCES `meter`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE INDEX `component_engine` ON `component` (`engine_id`);--> statement-breakpoint
CREATE INDEX `engine_owner` ON `engine` (`owner_id`);--> statement-breakpoint
CREATE INDEX `engine_type` ON `engine` (`type_id`);--> statement-breakpoint
CREATE INDEX `engine_type_name` ON `engine_type` (`maker`,`name`);--> statement-breakpoint
CREATE INDEX `finding_job` ON `finding` (`job_id`);--> statement-breakpoint
CREATE INDEX `job_engine` ON `job` (`engine_id`);--> statement-breakpoint
CREATE INDEX `job_state_due` ON `job` (`state`,`due_order`,`taken_in_at`);--> statement-breakpoint
CREATE INDEX `job_state_taken_in` ON `job` (`state`,`taken_in_at`);--> statement-breakpoint
CREATE INDEX `job_station` ON `job` (`station`,`state`);--> statement-breakpoint
CREATE INDEX `job_due` ON `job` (`due_order`,`taken_in_at`);--> statement-breakpoint
CREATE INDEX `job_taken_in` ON `job` (`taken_in_at`);--> statement-breakpoint
CREATE INDEX `job_search` ON `job` (`search_text`,`state`,`station`,`taken_in_at`,`due_order`,`number`);--> statement-breakpoint
CREATE INDEX `journal_subject` ON `journal` (`subject`,`subject_id`);--> statement-breakpoint
CREATE INDEX `journal_job` ON `journal` (`job_id`);--> statement-breakpoint
CREATE INDEX `note_job` ON `note` (`job_id`);--> statement-breakpoint
CREATE INDEX `owner_name` ON `owner` (`name`);--> statement-breakpoint
CREATE INDEX `part_wanted_job` ON `part_wanted` (`job_id`);--> statement-breakpoint
CREATE INDEX `photograph_job` ON `photograph` (`job_id`);--> statement-breakpoint
CREATE INDEX `reading_sheet` ON `reading` (`sheet_id`);--> statement-breakpoint
CREATE INDEX `sheet_job` ON `sheet` (`job_id`);