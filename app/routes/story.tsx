import { storyIntents } from "~/features/story/intents";
import { jobAction } from "~/store/use-job";

export const clientAction = jobAction(storyIntents);
export { StoryForm as default } from "~/features/story/StoryForm";
export { StepProblem as ErrorBoundary } from "~/ui/Problem";
