export { StoryForm as default } from "~/features/story/StoryForm";
