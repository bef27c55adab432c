CREATE TABLE `letterheads` (
	`id` text PRIMARY KEY NOT NULL,
	`version` integer NOT NULL,
	`body` text NOT NULL
);
--> statement-breakpoint
UPDATE `stock` SET `body` = json_set(`body`, '$.ownerId', NULL, '$.out', json('[]'));--> statement-breakpoint
UPDATE `units` SET `body` = json_set(`body`, '$.ownerId', NULL, '$.loan', NULL);--> statement-breakpoint
UPDATE `baselines` SET `body` = json_set(`body`, '$.countedFrom', NULL, '$.notHere', json('[]'), '$.score', NULL);
