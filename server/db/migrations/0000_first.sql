CREATE TABLE `bikes` (
	`id` text PRIMARY KEY NOT NULL,
	`version` integer NOT NULL,
	`deleted_at` text,
	`rider_id` text NOT NULL,
	`front_unit_id` text,
	`rear_unit_id` text,
	`current_setup_id` text,
	`body` text NOT NULL,
	FOREIGN KEY (`rider_id`) REFERENCES `riders`(`id`) ON UPDATE no action ON DELETE no action,
	FOREIGN KEY (`front_unit_id`) REFERENCES `units`(`id`) ON UPDATE no action ON DELETE no action,
	FOREIGN KEY (`rear_unit_id`) REFERENCES `units`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE TABLE `days` (
	`id` text PRIMARY KEY NOT NULL,
	`version` integer NOT NULL,
	`deleted_at` text,
	`date` text NOT NULL,
	`rider_id` text NOT NULL,
	`bike_id` text NOT NULL,
	`trail_id` text NOT NULL,
	`start_setup_id` text NOT NULL,
	`body` text NOT NULL,
	FOREIGN KEY (`rider_id`) REFERENCES `riders`(`id`) ON UPDATE no action ON DELETE no action,
	FOREIGN KEY (`bike_id`) REFERENCES `bikes`(`id`) ON UPDATE no action ON DELETE no action,
	FOREIGN KEY (`trail_id`) REFERENCES `trails`(`id`) ON UPDATE no action ON DELETE no action,
	FOREIGN KEY (`start_setup_id`) REFERENCES `setups`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE INDEX `days_by_date` ON `days` (`date`);--> statement-breakpoint
CREATE TABLE `feels` (
	`run_id` text PRIMARY KEY NOT NULL,
	`version` integer NOT NULL,
	`body` text NOT NULL,
	FOREIGN KEY (`run_id`) REFERENCES `runs`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE TABLE `mappings` (
	`fingerprint` text PRIMARY KEY NOT NULL,
	`body` text NOT NULL
);
--> statement-breakpoint
CREATE TABLE `proposals` (
	`id` text PRIMARY KEY NOT NULL,
	`version` integer NOT NULL,
	`deleted_at` text,
	`day_id` text NOT NULL,
	`body` text NOT NULL,
	FOREIGN KEY (`day_id`) REFERENCES `days`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE INDEX `proposals_by_day` ON `proposals` (`day_id`);--> statement-breakpoint
CREATE TABLE `recording_chunks` (
	`recording_id` text NOT NULL,
	`part` text NOT NULL,
	`seq` integer NOT NULL,
	`bytes` blob NOT NULL,
	PRIMARY KEY(`recording_id`, `part`, `seq`),
	FOREIGN KEY (`recording_id`) REFERENCES `recordings`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE TABLE `recordings` (
	`id` text PRIMARY KEY NOT NULL,
	`deleted_at` text,
	`run_id` text NOT NULL,
	`body` text NOT NULL,
	FOREIGN KEY (`run_id`) REFERENCES `runs`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE INDEX `recordings_by_run` ON `recordings` (`run_id`);--> statement-breakpoint
CREATE TABLE `riders` (
	`id` text PRIMARY KEY NOT NULL,
	`version` integer NOT NULL,
	`deleted_at` text,
	`body` text NOT NULL
);
--> statement-breakpoint
CREATE TABLE `runs` (
	`id` text PRIMARY KEY NOT NULL,
	`version` integer NOT NULL,
	`deleted_at` text,
	`day_id` text NOT NULL,
	`setup_id` text NOT NULL,
	`started_at` text NOT NULL,
	`body` text NOT NULL,
	FOREIGN KEY (`day_id`) REFERENCES `days`(`id`) ON UPDATE no action ON DELETE no action,
	FOREIGN KEY (`setup_id`) REFERENCES `setups`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE INDEX `runs_by_day` ON `runs` (`day_id`,`started_at`);--> statement-breakpoint
CREATE TABLE `setups` (
	`seq` integer PRIMARY KEY AUTOINCREMENT NOT NULL,
	`id` text NOT NULL,
	`bike_id` text NOT NULL,
	`parent_id` text,
	`day_id` text,
	`body` text NOT NULL,
	FOREIGN KEY (`bike_id`) REFERENCES `bikes`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE UNIQUE INDEX `setups_id_unique` ON `setups` (`id`);--> statement-breakpoint
CREATE INDEX `setups_by_bike` ON `setups` (`bike_id`);--> statement-breakpoint
CREATE INDEX `setups_by_day` ON `setups` (`day_id`);--> statement-breakpoint
CREATE TABLE `trails` (
	`id` text PRIMARY KEY NOT NULL,
	`version` integer NOT NULL,
	`deleted_at` text,
	`body` text NOT NULL
);
--> statement-breakpoint
CREATE TABLE `units` (
	`id` text PRIMARY KEY NOT NULL,
	`version` integer NOT NULL,
	`deleted_at` text,
	`body` text NOT NULL
);
