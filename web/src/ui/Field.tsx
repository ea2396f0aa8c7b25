import { type InputHTMLAttributes, type ReactNode, useId } from "react";
import { Refused } from "../api/client";

/** What was refused about a field, if anything. */
export function faultOf(error: Error | null, field: string): string | null {
  if (!(error instanceof Refused)) return null;
  return error.faults.find((fault) => fault.loc.includes(field))?.msg ?? null;
}

/** What was refused, and about none of these fields. */
export function faultBeside(error: Error | null, fields: readonly string[]): string | null {
  if (!error) return null;
  const told = fields.some((field) => faultOf(error, field));
  return told ? null : error.message;
}

interface Props {
  label: string;
  /** What it changes. */
  hint?: string | null | undefined;
  fault?: string | null | undefined;
}
interface Control {
  id: string;
  className: string;
  "aria-describedby"?: string;
  "aria-invalid"?: true;
}

/** A field under its label, with what it changes and what was wrong with it. */
function Field({ label, hint, fault, children }: Props & { children: (control: Control) => ReactNode }) {
  const id = useId();
  const about = `${id} about`;
  const control: Control = { id, className: "field" };
  if (hint || fault) control["aria-describedby"] = about;
  if (fault) control["aria-invalid"] = true;
  return (
    <div>
      <label htmlFor={id} className="label-text block pb-1">
        {label}
      </label>
      {children(control)}
      {fault ? (
        <p id={about} role="alert" className="pt-1 text-[13px] leading-[17px]">
          <span className="seal">Field</span> {fault}
        </p>
      ) : (
        hint && (
          <p id={about} className="quiet pt-1 text-[12px] leading-[16px]">
            {hint}
          </p>
        )
      )}
    </div>
  );
}

type InputProps = InputHTMLAttributes<HTMLInputElement> & Props;

export function TextField({ label, hint, fault, ...input }: InputProps) {
  return (
    <Field label={label} hint={hint} fault={fault}>
      {(control) => <input {...input} {...control} />}
    </Field>
  );
}

interface SelectProps extends Props {
  value: string;
  none?: string;
  options: readonly { id: string; name: string }[];
  onChange: (id: string) => void;
}

export function SelectField({ label, hint, fault, value, none, options, onChange }: SelectProps) {
  return (
    <Field label={label} hint={hint} fault={fault}>
      {(control) => (
        <select
          {...control}
          className={`${control.className} cursor-pointer`}
          value={value}
          onChange={(event) => onChange(event.target.value)}
        >
          {none !== undefined && <option value="">{none}</option>}
          {options.map((option) => (
            <option key={option.id} value={option.id}>
              {option.name}
            </option>
          ))}
        </select>
      )}
    </Field>
  );
}
