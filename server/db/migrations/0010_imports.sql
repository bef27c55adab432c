CREATE TABLE `import_rows` (
	`import_id` text NOT NULL,
	`kind` text NOT NULL,
	`key` text NOT NULL,
	`before` text,
	`version` integer,
	`deleted_at` text,
	`pointer` text,
	PRIMARY KEY(`import_id`, `kind`, `key`),
	FOREIGN KEY (`import_id`) REFERENCES `imports`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE TABLE `imports` (
	`id` text PRIMARY KEY NOT NULL,
	`at` text NOT NULL,
	`head` text NOT NULL,
	`fresh` integer NOT NULL,
	`replaced` integer NOT NULL
);
