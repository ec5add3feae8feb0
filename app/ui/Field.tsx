import { FieldError } from "react-aria-components/FieldError";
import { Input } from "react-aria-components/Input";
import { Label } from "react-aria-components/Label";
import { Text } from "react-aria-components/Text";
import { TextArea } from "react-aria-components/TextArea";
import { TextField, type TextFieldProps } from "react-aria-components/TextField";
import styled, { css } from "styled-components";

const box = css`
  width: 100%;
  min-height: 48px;
  padding: 8px 14px;
  border: 2px solid var(--line);
  border-radius: 10px;
  background: var(--sheet);
  &[data-focused] {
    border-color: var(--petrol);
    outline: 3px solid var(--petrol);
    outline-offset: 1px;
  }
  &[data-invalid] {
    border-color: var(--danger);
  }
`;

const Frame = styled(TextField)`
  display: grid;
  gap: 6px;
  label {
    font-weight: 700;
  }
  [slot="description"] {
    color: var(--ink-soft);
    font-size: 0.9rem;
  }
  .error {
    color: var(--danger);
    font-weight: 650;
  }
`;
const Line = styled(Input)`
  ${box}
`;
const Area = styled(TextArea)`
  ${box}
  resize: vertical;
`;

export function Field({
  label,
  description,
  error,
  rows,
  ...props
}: TextFieldProps & { label: string; description?: string; error?: string | undefined; rows?: number }) {
  const { value, maxLength } = props;
  const full =
    value !== undefined && maxLength !== undefined && value.length >= 0.9 * maxLength
      ? `${value.length} of at most ${maxLength} characters.`
      : "";
  // What an action found wrong is told, and keeps nobody from sending it once more.
  return (
    <Frame {...props} isInvalid={Boolean(error)} validationBehavior="aria">
      <Label>{label}</Label>
      {rows ? <Area rows={rows} /> : <Line />}
      {(description || full) && (
        <Text slot="description">
          {description} {full}
        </Text>
      )}
      <FieldError className="error">{error}</FieldError>
    </Frame>
  );
}
