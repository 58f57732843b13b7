CREATE TABLE "batch_check" (
	"id" integer PRIMARY KEY GENERATED ALWAYS AS IDENTITY (sequence name "batch_check_id_seq" INCREMENT BY 1 MINVALUE 1 MAXVALUE 2147483647 START WITH 1 CACHE 1),
	"batch_id" integer NOT NULL,
	"act_id" integer NOT NULL,
	"face" text NOT NULL,
	"scent" text NOT NULL,
	"closes" text NOT NULL,
	"labelled" integer NOT NULL,
	"verdict" text NOT NULL,
	"note" text DEFAULT '' NOT NULL,
	"held_as" text
);
--> statement-breakpoint
DROP INDEX "batch_event_running";--> statement-breakpoint
ALTER TABLE "batch_check" ADD CONSTRAINT "batch_check_batch_id_batch_id_fk" FOREIGN KEY ("batch_id") REFERENCES "public"."batch"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "batch_check" ADD CONSTRAINT "batch_check_act_id_act_id_fk" FOREIGN KEY ("act_id") REFERENCES "public"."act"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "batch_check_batch" ON "batch_check" USING btree ("batch_id","id");--> statement-breakpoint
CREATE INDEX "batch_event_running" ON "batch_event" USING btree ("id") WHERE "batch_event"."kind" in ('timer', 'set') and "batch_event"."ended_at" is null and "batch_event"."struck_at" is null;