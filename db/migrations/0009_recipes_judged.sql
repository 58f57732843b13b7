ALTER TABLE "recipe_version" ADD COLUMN "used_on" text DEFAULT '' NOT NULL;--> statement-breakpoint
ALTER TABLE "recipe_version" ADD COLUMN "for_whom" text DEFAULT 'anyone' NOT NULL;--> statement-breakpoint
ALTER TABLE "recipe_version" ADD COLUMN "answers" jsonb DEFAULT '{}'::jsonb NOT NULL;