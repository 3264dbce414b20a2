ALTER TABLE `layers` ADD `product_id` text;--> statement-breakpoint
ALTER TABLE `layers` ADD `plants_before` integer;