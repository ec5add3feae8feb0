import { useEffect, useRef, useState } from "react";
import { dropDraft, readDraft, writeDraft } from "~/store/drafts";
import { Field } from "~/ui/Field";

/** Whoever types is left alone for so long before it is stored, ms. */
const PAUSE_MS = 700;

/**
 * A field that stores itself: a moment after the last key, and when it is left. What cannot be stored yet is told beside it and kept
 * on the device, so that a closed page loses none of it.
 */
export function LiveField({
  keep,
  value,
  fault = () => null,
  written = (text) => text,
  onStore,
  ...props
}: {
  /** Under which it is kept while it is not stored. */
  keep: string;
  value: string;
  /** What is wrong with a text, or null. */
  fault?: (text: string) => string | null;
  /** How a text is written, whatever was typed. */
  written?: (text: string) => string;
  onStore: (text: string) => void;
  label: string;
  description?: string;
  rows?: number;
  maxLength?: number;
  inputMode?: "numeric" | "decimal";
}) {
  const [typed, setTyped] = useState<string | null>(null);
  const [focused, setFocused] = useState(false);
  const timer = useRef<ReturnType<typeof setTimeout>>(undefined);
  const latest = useRef({ typed, value, fault, onStore });
  useEffect(() => {
    latest.current = { typed, value, fault, onStore };
  });
  const store = (text: string) => {
    clearTimeout(timer.current);
    const { value, fault, onStore } = latest.current;
    if (text.trim() !== value && !fault(text.trim())) onStore(text.trim());
  };
  useEffect(() => {
    let gone = false;
    readDraft(keep).then(
      (draft) => {
        if (!gone && typeof draft === "string" && draft !== latest.current.value) setTyped((t) => t ?? draft);
      },
      () => undefined,
    );
    return () => {
      gone = true;
      clearTimeout(timer.current);
      // Another page was opened before the pause was over.
      const { typed, value, fault, onStore } = latest.current;
      if (typed !== null && typed.trim() !== value && !fault(typed.trim())) onStore(typed.trim());
    };
  }, [keep]);
  const stored = typed !== null && typed.trim() === value;
  useEffect(() => {
    if (stored) dropDraft(keep).catch(() => undefined);
  }, [stored, keep]);
  // Once it is stored and left, it follows what is stored: another change, or one that is taken back. A blank at its end stays while it is typed.
  if (stored && !focused) setTyped(null);
  const shown = typed ?? value;
  return (
    <Field
      {...props}
      value={shown}
      error={typed === null ? undefined : (fault(shown.trim()) ?? undefined)}
      onChange={(typed) => {
        const text = written(typed);
        setTyped(text);
        writeDraft(keep, text).catch(() => undefined);
        clearTimeout(timer.current);
        timer.current = setTimeout(() => store(text), PAUSE_MS);
      }}
      onFocus={() => setFocused(true)}
      onBlur={() => {
        setFocused(false);
        if (typed !== null) store(typed);
      }}
    />
  );
}

/** A text that may not be missing. */
export const needed = (what: string) => (text: string) => (text ? null : what);
