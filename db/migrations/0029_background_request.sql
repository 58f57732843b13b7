-- Requests in the background count once by their key, whatever they are about, and no longer batch by batch.
CREATE TABLE "zelbin"."background_request" (
	"key" uuid PRIMARY KEY NOT NULL,
	"at" timestamp with time zone DEFAULT now() NOT NULL
);
--> statement-breakpoint
-- A page that waits for the server during this migration repeats its requests after it.
INSERT INTO "zelbin"."background_request" ("key") SELECT DISTINCT "key" FROM "zelbin"."batch_sent";--> statement-breakpoint
DROP TABLE "zelbin"."batch_sent";
