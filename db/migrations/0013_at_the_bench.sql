CREATE TABLE "batch_event" (
	"id" integer PRIMARY KEY GENERATED ALWAYS AS IDENTITY (sequence name "batch_event_id_seq" INCREMENT BY 1 MINVALUE 1 MAXVALUE 2147483647 START WITH 1 CACHE 1),
	"batch_id" integer NOT NULL,
	"at" timestamp with time zone DEFAULT now() NOT NULL,
	"who" text NOT NULL,
	"kind" text NOT NULL,
	"step" integer,
	"celsius" real,
	"minutes" real,
	"note" text DEFAULT '' NOT NULL,
	"ended_at" timestamp with time zone,
	"struck_at" timestamp with time zone
);
--> statement-breakpoint
ALTER TABLE "batch" ADD COLUMN "vessel" bigint;--> statement-breakpoint
ALTER TABLE "batch_take" ADD COLUMN "weighed_at" timestamp with time zone;--> statement-breakpoint
ALTER TABLE "batch_take" ADD COLUMN "weighed_by" text;--> statement-breakpoint
ALTER TABLE "batch_event" ADD CONSTRAINT "batch_event_batch_id_batch_id_fk" FOREIGN KEY ("batch_id") REFERENCES "public"."batch"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "batch_event_batch" ON "batch_event" USING btree ("batch_id","id");--> statement-breakpoint
CREATE INDEX "batch_event_running" ON "batch_event" USING btree ("id") WHERE "batch_event"."kind" = 'timer' and "batch_event"."ended_at" is null and "batch_event"."struck_at" is null;