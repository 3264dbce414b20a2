DROP INDEX `movements_lot`;--> statement-breakpoint
CREATE INDEX `movements_lot` ON `movements` (`lot_id`,`part`,`amount`,`at`);