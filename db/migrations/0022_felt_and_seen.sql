ALTER TABLE "batch_check" ADD COLUMN "firm" text;--> statement-breakpoint
ALTER TABLE "batch_event" ADD COLUMN "attachment_id" integer;--> statement-breakpoint
ALTER TABLE "attachment" ADD COLUMN "batch_id" integer;--> statement-breakpoint
ALTER TABLE "attachment" ADD CONSTRAINT "attachment_batch_id_batch_id_fk" FOREIGN KEY ("batch_id") REFERENCES "public"."batch"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "attachment_batch" ON "attachment" USING btree ("batch_id");