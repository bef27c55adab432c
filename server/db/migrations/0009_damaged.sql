CREATE TABLE `damaged` (
	`kind` text NOT NULL,
	`id` text NOT NULL,
	`found_at` text NOT NULL,
	`became` text NOT NULL,
	`copied_at` text,
	`bytes` blob NOT NULL,
	PRIMARY KEY(`kind`, `id`, `found_at`)
);
