CREATE TABLE `original_chunks` (
	`sha256` text NOT NULL,
	`seq` integer NOT NULL,
	`bytes` blob NOT NULL,
	PRIMARY KEY(`sha256`, `seq`)
);
--> statement-breakpoint
CREATE TABLE `recording_originals` (
	`recording_id` text NOT NULL,
	`part` text NOT NULL,
	`sha256` text NOT NULL,
	PRIMARY KEY(`recording_id`, `part`),
	FOREIGN KEY (`recording_id`) REFERENCES `recordings`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE INDEX `recording_originals_by_sha` ON `recording_originals` (`sha256`);
--> statement-breakpoint
INSERT INTO `recording_originals` (`recording_id`, `part`, `sha256`)
SELECT c.recording_id, c.part, coalesce(
  CASE WHEN c.part = 'original' THEN nullif(r.sha256, '') END,
  (SELECT json_extract(f.value, '$.sha256')
    FROM json_each(CASE WHEN json_valid(r.body) THEN r.body ELSE '{}' END, '$.addedFiles') f
    WHERE c.part = 'original:' || json_extract(f.value, '$.id')),
  c.recording_id || ' ' || c.part)
FROM recording_chunks c JOIN recordings r ON r.id = c.recording_id
WHERE c.seq = 0 AND (c.part = 'original' OR c.part LIKE 'original:%');
--> statement-breakpoint
INSERT OR IGNORE INTO `original_chunks` (`sha256`, `seq`, `bytes`)
SELECT o.sha256, c.seq, c.bytes
FROM recording_chunks c JOIN recording_originals o ON o.recording_id = c.recording_id AND o.part = c.part;
--> statement-breakpoint
DELETE FROM `recording_chunks` WHERE part = 'original' OR part LIKE 'original:%';
--> statement-breakpoint
CREATE TRIGGER `original_of_nothing` AFTER DELETE ON `recording_originals`
WHEN NOT EXISTS (SELECT 1 FROM recording_originals WHERE sha256 = OLD.sha256)
BEGIN
  DELETE FROM original_chunks WHERE sha256 = OLD.sha256;
END;
--> statement-breakpoint
CREATE VIEW `recording_parts` AS
SELECT recording_id, part, seq, bytes FROM recording_chunks
UNION ALL
SELECT o.recording_id, o.part, c.seq, c.bytes FROM recording_originals o JOIN original_chunks c ON c.sha256 = o.sha256;
