CREATE TABLE `attempts` (
	`seq` integer PRIMARY KEY AUTOINCREMENT NOT NULL,
	`at` text NOT NULL,
	`from` text NOT NULL,
	`what` text NOT NULL,
	`opened` integer NOT NULL
);
--> statement-breakpoint
CREATE TABLE `locks` (
	`id` integer PRIMARY KEY NOT NULL,
	`passphrase` text NOT NULL,
	`recovery` text NOT NULL,
	`set_at` text NOT NULL
);
--> statement-breakpoint
CREATE TABLE `pad_reports` (
	`id` text PRIMARY KEY NOT NULL,
	`day_id` text NOT NULL,
	`said_at` text NOT NULL,
	`taken_for` text,
	`dropped_at` text,
	`body` text NOT NULL,
	FOREIGN KEY (`day_id`) REFERENCES `days`(`id`) ON UPDATE no action ON DELETE no action,
	FOREIGN KEY (`taken_for`) REFERENCES `runs`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE INDEX `pad_reports_by_day` ON `pad_reports` (`day_id`);--> statement-breakpoint
CREATE TABLE `pads` (
	`hash` text PRIMARY KEY NOT NULL,
	`day_id` text NOT NULL,
	`tent_id` text NOT NULL,
	`created_at` text NOT NULL,
	`expires_at` text NOT NULL,
	`last_used_at` text,
	FOREIGN KEY (`day_id`) REFERENCES `days`(`id`) ON UPDATE no action ON DELETE no action,
	FOREIGN KEY (`tent_id`) REFERENCES `tents`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE UNIQUE INDEX `pads_day_id_unique` ON `pads` (`day_id`);--> statement-breakpoint
CREATE TABLE `passes` (
	`hash` text PRIMARY KEY NOT NULL,
	`id` text NOT NULL,
	`role` text NOT NULL,
	`name` text NOT NULL,
	`tent_id` text,
	`expires_at` text NOT NULL
);
--> statement-breakpoint
CREATE UNIQUE INDEX `passes_id_unique` ON `passes` (`id`);--> statement-breakpoint
CREATE TABLE `sessions` (
	`hash` text PRIMARY KEY NOT NULL,
	`id` text NOT NULL,
	`role` text NOT NULL,
	`tent_id` text,
	`device` text NOT NULL,
	`created_at` text NOT NULL,
	`last_seen_at` text NOT NULL,
	`expires_at` text NOT NULL
);
--> statement-breakpoint
CREATE UNIQUE INDEX `sessions_id_unique` ON `sessions` (`id`);--> statement-breakpoint
CREATE TABLE `voices` (
	`id` text PRIMARY KEY NOT NULL,
	`day_id` text NOT NULL,
	`came_at` text NOT NULL,
	`bytes` blob NOT NULL,
	FOREIGN KEY (`day_id`) REFERENCES `days`(`id`) ON UPDATE no action ON DELETE no action
);
