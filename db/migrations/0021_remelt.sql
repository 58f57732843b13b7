DROP INDEX "movement_made";--> statement-breakpoint
ALTER TABLE "material" ADD COLUMN "makeup" jsonb DEFAULT '[]'::jsonb NOT NULL;--> statement-breakpoint
CREATE INDEX "movement_made" ON "movement" USING btree ("lot_id") WHERE "movement"."reason" in ('strained', 'blended', 'remelted', 'harvested', 'opening');
