CREATE TABLE `tent_hours` (
	`id` text PRIMARY KEY NOT NULL,
	`version` integer NOT NULL,
	`deleted_at` text,
	`tent_id` text NOT NULL,
	`at` text NOT NULL,
	`body` text NOT NULL,
	FOREIGN KEY (`tent_id`) REFERENCES `tents`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE INDEX `tent_hours_by_tent` ON `tent_hours` (`tent_id`,`at`);--> statement-breakpoint
CREATE TABLE `tent_notes` (
	`id` text PRIMARY KEY NOT NULL,
	`version` integer NOT NULL,
	`deleted_at` text,
	`tent_id` text NOT NULL,
	`at` text NOT NULL,
	`body` text NOT NULL,
	FOREIGN KEY (`tent_id`) REFERENCES `tents`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE INDEX `tent_notes_by_tent` ON `tent_notes` (`tent_id`,`at`);--> statement-breakpoint
CREATE TABLE `tent_riders` (
	`id` text PRIMARY KEY NOT NULL,
	`version` integer NOT NULL,
	`deleted_at` text,
	`tent_id` text NOT NULL,
	`body` text NOT NULL,
	FOREIGN KEY (`tent_id`) REFERENCES `tents`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE INDEX `tent_riders_by_tent` ON `tent_riders` (`tent_id`);--> statement-breakpoint
CREATE TABLE `tents` (
	`id` text PRIMARY KEY NOT NULL,
	`version` integer NOT NULL,
	`deleted_at` text,
	`date` text NOT NULL,
	`body` text NOT NULL
);
