ALTER TABLE `batch_items` ADD `numbers` text;--> statement-breakpoint
ALTER TABLE `batches` ADD `fates` text;