-- Batches were documents. What they held is taken over into rows after this, by src/db/upgrade.ts.
DROP INDEX `batches_set`;--> statement-breakpoint
ALTER TABLE `batches` RENAME TO `old_batches`;--> statement-breakpoint
CREATE TABLE `batches` (
	`id` text PRIMARY KEY NOT NULL,
	`version` integer DEFAULT 1 NOT NULL,
	`position` integer DEFAULT 0 NOT NULL,
	`set_id` text NOT NULL,
	`name` text NOT NULL,
	`pour_at` text NOT NULL,
	`bench_windows` text,
	`updated_at` text NOT NULL,
	FOREIGN KEY (`set_id`) REFERENCES `sets`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE INDEX `batches_set` ON `batches` (`set_id`,`position`);--> statement-breakpoint
CREATE TABLE `batch_items` (
	`batch_id` text NOT NULL,
	`design_id` text NOT NULL,
	`position` integer NOT NULL,
	`copies` integer NOT NULL,
	PRIMARY KEY(`batch_id`, `design_id`),
	FOREIGN KEY (`batch_id`) REFERENCES `batches`(`id`) ON UPDATE no action ON DELETE cascade,
	FOREIGN KEY (`design_id`) REFERENCES `designs`(`id`) ON UPDATE no action ON DELETE no action,
	CONSTRAINT "batch_items_copies" CHECK("batch_items"."copies" >= 1)
);
--> statement-breakpoint
CREATE INDEX `batch_items_design` ON `batch_items` (`design_id`);--> statement-breakpoint
CREATE TABLE `cup_pours` (
	`batch_id` text NOT NULL,
	`layer` integer NOT NULL,
	`cup` integer NOT NULL,
	`position` integer NOT NULL,
	`design_id` text NOT NULL,
	`copy` integer NOT NULL,
	`tag` text NOT NULL,
	`grams` real NOT NULL,
	PRIMARY KEY(`batch_id`, `layer`, `cup`, `position`),
	FOREIGN KEY (`batch_id`,`layer`,`cup`) REFERENCES `cups`(`batch_id`,`layer`,`number`) ON UPDATE no action ON DELETE cascade,
	CONSTRAINT "cup_pours_grams" CHECK("cup_pours"."grams" >= 0 and "cup_pours"."copy" >= 1)
);
--> statement-breakpoint
CREATE TABLE `cups` (
	`batch_id` text NOT NULL,
	`layer` integer NOT NULL,
	`number` integer NOT NULL,
	`poured_grams` real NOT NULL,
	`mix_grams` real NOT NULL,
	`part_a_grams` real,
	`part_b_grams` real,
	`part_a_ml` real,
	`part_b_ml` real,
	`pot_life_minutes` real NOT NULL,
	`doses` text NOT NULL,
	PRIMARY KEY(`batch_id`, `layer`, `number`),
	FOREIGN KEY (`batch_id`,`layer`) REFERENCES `layers`(`batch_id`,`number`) ON UPDATE no action ON DELETE cascade,
	CONSTRAINT "cups_grams" CHECK("cups"."mix_grams" >= "cups"."poured_grams" and "cups"."poured_grams" >= 0)
);
--> statement-breakpoint
CREATE TABLE `kept_plans` (
	`batch_id` text PRIMARY KEY NOT NULL,
	`request` text NOT NULL,
	`amounts` text NOT NULL,
	`kept_at` text NOT NULL,
	FOREIGN KEY (`batch_id`) REFERENCES `batches`(`id`) ON UPDATE no action ON DELETE cascade
);
--> statement-breakpoint
CREATE TABLE `layers` (
	`batch_id` text NOT NULL,
	`number` integer NOT NULL,
	`from_mm` real NOT NULL,
	`to_mm` real NOT NULL,
	`thickness_mm` real NOT NULL,
	`wet_mm` real NOT NULL,
	`volume_ml` real NOT NULL,
	`poured_grams` real NOT NULL,
	`mix_grams` real NOT NULL,
	`fewest_cups` integer NOT NULL,
	PRIMARY KEY(`batch_id`, `number`),
	FOREIGN KEY (`batch_id`) REFERENCES `kept_plans`(`batch_id`) ON UPDATE no action ON DELETE cascade,
	CONSTRAINT "layers_grams" CHECK("layers"."mix_grams" >= "layers"."poured_grams" and "layers"."poured_grams" >= 0)
);
--> statement-breakpoint
CREATE TABLE `pours` (
	`id` integer PRIMARY KEY AUTOINCREMENT NOT NULL,
	`batch_id` text NOT NULL,
	`layer` integer NOT NULL,
	`struck` integer DEFAULT false NOT NULL,
	`poured_at` text NOT NULL,
	`temperature_c` real NOT NULL,
	`note` text NOT NULL,
	`entered_at` text NOT NULL,
	FOREIGN KEY (`batch_id`) REFERENCES `batches`(`id`) ON UPDATE no action ON DELETE cascade,
	CONSTRAINT "pours_layer" CHECK("pours"."layer" >= 1)
);
--> statement-breakpoint
CREATE INDEX `pours_batch` ON `pours` (`batch_id`,`layer`,`id`);--> statement-breakpoint
CREATE INDEX `pours_when` ON `pours` (`poured_at`);--> statement-breakpoint
CREATE TABLE `weighings` (
	`pour_id` integer NOT NULL,
	`cup` integer NOT NULL,
	`part_a_grams` real NOT NULL,
	`part_b_grams` real,
	`note` text NOT NULL,
	PRIMARY KEY(`pour_id`, `cup`),
	FOREIGN KEY (`pour_id`) REFERENCES `pours`(`id`) ON UPDATE no action ON DELETE cascade,
	CONSTRAINT "weighings_grams" CHECK("weighings"."part_a_grams" >= 0 and ("weighings"."part_b_grams" is null or "weighings"."part_b_grams" >= 0))
);
--> statement-breakpoint
DROP INDEX `edits_scope`;--> statement-breakpoint
CREATE INDEX `edits_scope` ON `edits` (`scope`,`undone`,`id`);--> statement-breakpoint
ALTER TABLE `colourants` ADD `shape` integer DEFAULT 1 NOT NULL;--> statement-breakpoint
ALTER TABLE `designs` ADD `shape` integer DEFAULT 1 NOT NULL;--> statement-breakpoint
ALTER TABLE `pieces` ADD `shape` integer DEFAULT 1 NOT NULL;--> statement-breakpoint
ALTER TABLE `products` ADD `shape` integer DEFAULT 1 NOT NULL;--> statement-breakpoint
ALTER TABLE `recipes` ADD `shape` integer DEFAULT 1 NOT NULL;--> statement-breakpoint
ALTER TABLE `sets` ADD `shape` integer DEFAULT 1 NOT NULL;--> statement-breakpoint
ALTER TABLE `settings` ADD `shape` integer DEFAULT 1 NOT NULL;
--> statement-breakpoint
-- What holds of each layer: its last entry, unless that is struck.
CREATE VIEW `current_pours` AS
	SELECT p.* FROM `pours` p
	WHERE p.`struck` = 0 AND p.`id` = (
		SELECT max(q.`id`) FROM `pours` q WHERE q.`batch_id` = p.`batch_id` AND q.`layer` = p.`layer`
	);
