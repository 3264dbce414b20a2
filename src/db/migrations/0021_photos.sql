CREATE TABLE `photos` (
	`id` text PRIMARY KEY NOT NULL,
	`bytes` blob NOT NULL,
	`kept_at` text NOT NULL
);
--> statement-breakpoint
ALTER TABLE `batches` ADD `photos` text;