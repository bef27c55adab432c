CREATE TABLE `kept` (
	`id` text PRIMARY KEY NOT NULL,
	`version` integer NOT NULL,
	`deleted_at` text,
	`bike_id` text NOT NULL,
	`body` text NOT NULL,
	FOREIGN KEY (`bike_id`) REFERENCES `bikes`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE INDEX `kept_by_bike` ON `kept` (`bike_id`);--> statement-breakpoint
CREATE INDEX `days_by_bike` ON `days` (`bike_id`);