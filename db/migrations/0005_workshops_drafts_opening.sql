CREATE TABLE "draft" (
	"id" integer PRIMARY KEY GENERATED ALWAYS AS IDENTITY (sequence name "draft_id_seq" INCREMENT BY 1 MINVALUE 1 MAXVALUE 2147483647 START WITH 1 CACHE 1),
	"path" text NOT NULL,
	"sheet" text DEFAULT '' NOT NULL,
	"title" text NOT NULL,
	"token" uuid NOT NULL,
	"seen" integer,
	"values" jsonb NOT NULL,
	"since" timestamp with time zone DEFAULT now() NOT NULL,
	"kept_at" timestamp with time zone DEFAULT now() NOT NULL,
	CONSTRAINT "draft_sheet" UNIQUE("path","sheet")
);
--> statement-breakpoint
CREATE TABLE "workshop" (
	"id" integer PRIMARY KEY DEFAULT 1 NOT NULL,
	"kind" text NOT NULL,
	"since" timestamp with time zone DEFAULT now() NOT NULL,
	CONSTRAINT "one_workshop" CHECK ("workshop"."id" = 1)
);
--> statement-breakpoint
DROP INDEX "movement_made";--> statement-breakpoint
ALTER TABLE "lot" ADD COLUMN "cost_known" text DEFAULT 'paid' NOT NULL;--> statement-breakpoint
CREATE INDEX "movement_made" ON "movement" USING btree ("lot_id") WHERE "movement"."reason" in ('strained', 'blended', 'harvested', 'opening');--> statement-breakpoint
-- Until now every database was the demo's.
INSERT INTO "workshop" ("kind") SELECT 'demo' WHERE EXISTS (SELECT 1 FROM "act");
