export { StoryForm as default } from "~/features/story/StoryForm";
export { StepProblem as ErrorBoundary } from "~/ui/Problem";
