CREATE TABLE `consumables` (
	`id` text PRIMARY KEY NOT NULL,
	`version` integer DEFAULT 1 NOT NULL,
	`shape` integer DEFAULT 1 NOT NULL,
	`position` integer DEFAULT 0 NOT NULL,
	`data` text NOT NULL,
	`updated_at` text NOT NULL
);
--> statement-breakpoint
CREATE TABLE `lots` (
	`id` text PRIMARY KEY NOT NULL,
	`version` integer DEFAULT 1 NOT NULL,
	`position` integer DEFAULT 0 NOT NULL,
	`item_kind` text NOT NULL,
	`item_id` text NOT NULL,
	`name` text NOT NULL,
	`bought` text NOT NULL,
	`bought_on` text NOT NULL,
	`opened_on` text,
	`best_before` text,
	`price` real NOT NULL,
	`gone` integer DEFAULT false NOT NULL,
	`updated_at` text NOT NULL,
	CONSTRAINT "lots_price" CHECK("lots"."price" >= 0),
	CONSTRAINT "lots_opened" CHECK("lots"."opened_on" is null or "lots"."opened_on" >= "lots"."bought_on")
);
--> statement-breakpoint
CREATE INDEX `lots_item` ON `lots` (`item_kind`,`item_id`);--> statement-breakpoint
CREATE TABLE `movements` (
	`id` integer PRIMARY KEY AUTOINCREMENT NOT NULL,
	`key` text,
	`lot_id` text,
	`item_kind` text NOT NULL,
	`item_id` text NOT NULL,
	`part` text NOT NULL,
	`amount` real NOT NULL,
	`kind` text NOT NULL,
	`at` text NOT NULL,
	`note` text NOT NULL,
	`batch_id` text,
	`layer` integer,
	`cup` integer,
	`counters` integer,
	`entered_at` text NOT NULL,
	FOREIGN KEY (`lot_id`) REFERENCES `lots`(`id`) ON UPDATE no action ON DELETE no action,
	CONSTRAINT "movements_lot_or_reserved" CHECK(("movements"."lot_id" is null) = ("movements"."kind" in ('reserved', 'released')))
);
--> statement-breakpoint
CREATE UNIQUE INDEX `movements_key_unique` ON `movements` (`key`);--> statement-breakpoint
CREATE INDEX `movements_lot` ON `movements` (`lot_id`,`part`);--> statement-breakpoint
CREATE INDEX `movements_item` ON `movements` (`item_kind`,`item_id`,`part`);--> statement-breakpoint
CREATE INDEX `movements_batch` ON `movements` (`batch_id`,`layer`);--> statement-breakpoint
CREATE INDEX `movements_counters` ON `movements` (`counters`);--> statement-breakpoint
CREATE TRIGGER `movements_stay` BEFORE UPDATE ON `movements`
BEGIN SELECT RAISE(ABORT, 'movements are never changed; a correction is a further one'); END;
--> statement-breakpoint
CREATE TRIGGER `movements_are_kept` BEFORE DELETE ON `movements`
BEGIN SELECT RAISE(ABORT, 'movements are never deleted; a correction is a further one'); END;
--> statement-breakpoint
CREATE TRIGGER `lots_are_kept` BEFORE DELETE ON `lots`
BEGIN SELECT RAISE(ABORT, 'lots are never deleted; they leave the books by movements'); END;
--> statement-breakpoint
CREATE TRIGGER `lots_hold_no_less_than_nothing` AFTER INSERT ON `movements` WHEN new.`lot_id` IS NOT NULL AND new.`amount` < 0
BEGIN SELECT RAISE(ABORT, 'a lot cannot hold less than nothing')
WHERE (SELECT sum(`amount`) FROM `movements` WHERE `lot_id` = new.`lot_id` AND `part` = new.`part`) < -0.001; END;
