CREATE TABLE `baselines` (
	`id` text PRIMARY KEY NOT NULL,
	`version` integer NOT NULL,
	`deleted_at` text,
	`bike_id` text NOT NULL,
	`body` text NOT NULL,
	FOREIGN KEY (`bike_id`) REFERENCES `bikes`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE INDEX `baselines_by_bike` ON `baselines` (`bike_id`);--> statement-breakpoint
CREATE TABLE `benches` (
	`id` text PRIMARY KEY NOT NULL,
	`version` integer NOT NULL,
	`deleted_at` text,
	`bike_id` text NOT NULL,
	`started_at` text NOT NULL,
	`body` text NOT NULL,
	FOREIGN KEY (`bike_id`) REFERENCES `bikes`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE INDEX `benches_by_bike` ON `benches` (`bike_id`,`started_at`);--> statement-breakpoint
CREATE TABLE `gauges` (
	`id` text PRIMARY KEY NOT NULL,
	`version` integer NOT NULL,
	`deleted_at` text,
	`body` text NOT NULL
);
--> statement-breakpoint
CREATE TABLE `services` (
	`id` text PRIMARY KEY NOT NULL,
	`version` integer NOT NULL,
	`deleted_at` text,
	`bike_id` text NOT NULL,
	`date` text NOT NULL,
	`body` text NOT NULL,
	FOREIGN KEY (`bike_id`) REFERENCES `bikes`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE INDEX `services_by_bike` ON `services` (`bike_id`,`date`);--> statement-breakpoint
CREATE TABLE `stock` (
	`id` text PRIMARY KEY NOT NULL,
	`version` integer NOT NULL,
	`deleted_at` text,
	`body` text NOT NULL
);
