CREATE TABLE `answered` (
	`key` text PRIMARY KEY NOT NULL,
	`at` integer NOT NULL,
	`done` text NOT NULL
);
--> statement-breakpoint
CREATE INDEX `answered_at` ON `answered` (`at`);