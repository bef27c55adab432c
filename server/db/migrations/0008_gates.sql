UPDATE `trails` SET `body` = json_set(`body`, '$.gates', json('[]'));--> statement-breakpoint
UPDATE `recordings` SET `body` = json_set(`body`, '$.lineS', NULL, '$.fullTravelMm', json('{"front":null,"rear":null}'));
