CREATE TABLE `poured_pieces` (
	`pour_id` integer NOT NULL,
	`cup` integer NOT NULL,
	`position` integer NOT NULL,
	`design_id` text NOT NULL,
	`copy` integer NOT NULL,
	`tag` text NOT NULL,
	`grams` real NOT NULL,
	PRIMARY KEY(`pour_id`, `cup`, `position`),
	FOREIGN KEY (`pour_id`,`cup`) REFERENCES `weighings`(`pour_id`,`cup`) ON UPDATE no action ON DELETE cascade,
	CONSTRAINT "poured_pieces_grams" CHECK("poured_pieces"."grams" >= 0 and "poured_pieces"."copy" >= 0)
);
--> statement-breakpoint
CREATE INDEX `poured_pieces_design` ON `poured_pieces` (`design_id`,`copy`);--> statement-breakpoint
CREATE TABLE `room_readings` (
	`id` integer PRIMARY KEY AUTOINCREMENT NOT NULL,
	`wall_at` text NOT NULL,
	`at` integer NOT NULL,
	`temperature_c` real NOT NULL,
	`humidity` real
);
--> statement-breakpoint
CREATE INDEX `room_readings_when` ON `room_readings` (`wall_at`);--> statement-breakpoint
CREATE TABLE `run_events` (
	`run_id` text NOT NULL,
	`seq` integer NOT NULL,
	`event_id` text NOT NULL,
	`at` integer NOT NULL,
	`data` text NOT NULL,
	PRIMARY KEY(`run_id`, `seq`),
	FOREIGN KEY (`run_id`) REFERENCES `runs`(`id`) ON UPDATE no action ON DELETE cascade
);
--> statement-breakpoint
CREATE UNIQUE INDEX `run_events_once` ON `run_events` (`run_id`,`event_id`);--> statement-breakpoint
CREATE TABLE `runs` (
	`id` text PRIMARY KEY NOT NULL,
	`set_id` text NOT NULL,
	`batch_id` text NOT NULL,
	`name` text NOT NULL,
	`practice_speed` real,
	`seed` integer DEFAULT 0 NOT NULL,
	`plan` text NOT NULL,
	`begun_at` integer NOT NULL,
	`over_at` integer
);
--> statement-breakpoint
CREATE INDEX `runs_set` ON `runs` (`set_id`,`begun_at`);--> statement-breakpoint
CREATE INDEX `runs_open` ON `runs` (`over_at`);--> statement-breakpoint
ALTER TABLE `weighings` ADD `poured_grams` real;--> statement-breakpoint
ALTER TABLE `weighings` ADD `discarded` integer DEFAULT false NOT NULL;--> statement-breakpoint
ALTER TABLE `weighings` ADD `doses` text;--> statement-breakpoint
CREATE TRIGGER `run_events_stay` BEFORE UPDATE ON `run_events`
BEGIN
  SELECT RAISE(ABORT, 'What happened at the bench is not changed.');
END;
