ALTER TABLE `pours` ADD `poured_until` text;--> statement-breakpoint
ALTER TABLE `pours` ADD `tint_left` text;--> statement-breakpoint
ALTER TABLE `pours` ADD `expired_lots` text;