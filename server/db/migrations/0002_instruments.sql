CREATE TABLE `instrument` (
	`id` binary(16) NOT NULL,
	`name` varchar(120) NOT NULL,
	`kind` varchar(20) NOT NULL,
	`host` varchar(120) NOT NULL,
	`port` int NOT NULL,
	`lead_ohms` double NOT NULL,
	`commands` json NOT NULL,
	`voltage` json NOT NULL,
	`current` json NOT NULL,
	`retired` boolean NOT NULL DEFAULT false,
	`version` int NOT NULL DEFAULT 1,
	CONSTRAINT `instrument_id` PRIMARY KEY(`id`)
);
