CREATE TABLE `profiles` (
	`id` text PRIMARY KEY NOT NULL,
	`version` integer NOT NULL,
	`deleted_at` text,
	`body` text NOT NULL
);
