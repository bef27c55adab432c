ALTER TABLE `recordings` ADD `sha256` text DEFAULT '' NOT NULL;--> statement-breakpoint
CREATE INDEX `recordings_by_sha` ON `recordings` (`sha256`);--> statement-breakpoint
ALTER TABLE `setups` ADD `wanted` integer DEFAULT false NOT NULL;--> statement-breakpoint
ALTER TABLE `setups` ADD `deleted_at` text;--> statement-breakpoint
UPDATE `recordings` SET `sha256` = coalesce(json_extract(`body`, '$.sha256'), '');--> statement-breakpoint
UPDATE `setups` SET `body` = json_set(`body`, '$.positions', (SELECT json_group_array(json_set(p.value, '$.known', json('{"how":"assumed","at":null,"by":"","source":"kept before it was noted how it is known","gaugeId":null,"airTempC":null,"altitudeM":null,"place":""}'))) FROM json_each(`setups`.`body`, '$.positions') p));--> statement-breakpoint
UPDATE `benches` SET `body` = json_set(`body`, '$.positions', (SELECT json_group_array(json_set(p.value, '$.known', json('{"how":"assumed","at":null,"by":"","source":"kept before it was noted how it is known","gaugeId":null,"airTempC":null,"altitudeM":null,"place":""}'))) FROM json_each(`benches`.`body`, '$.positions') p));
