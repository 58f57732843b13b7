ALTER TABLE "batch" ADD COLUMN "spoiled_act_id" integer;--> statement-breakpoint
ALTER TABLE "batch" ADD COLUMN "spoiled_why" text DEFAULT '' NOT NULL;--> statement-breakpoint
ALTER TABLE "batch" ADD CONSTRAINT "batch_spoiled_act_id_act_id_fk" FOREIGN KEY ("spoiled_act_id") REFERENCES "public"."act"("id") ON DELETE no action ON UPDATE no action;