import type { InputHTMLAttributes, ReactNode } from "react";
import { Refused } from "../../api/client";

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
  hint?: string;
  fault?: string | null;
  children: (about: { "aria-invalid"?: true; className: string }) => ReactNode;
}

/** A field under its label, with what it changes and what was wrong with it. */
export function Field({ label, hint, fault, children }: Props) {
  return (
    // biome-ignore lint/a11y/noLabelWithoutControl: the control is drawn by whoever uses it
    <label className="block">
      <span className="label-text block pb-1">{label}</span>
      {children({ className: "field", ...(fault ? { "aria-invalid": true } : {}) })}
      {fault ? (
        <span role="alert" className="block pt-1 text-[13px] leading-[17px]">
          <span className="seal">Field</span> {fault}
        </span>
      ) : (
        hint && <span className="quiet block pt-1 text-[12px] leading-[16px]">{hint}</span>
      )}
    </label>
  );
}

type InputProps = InputHTMLAttributes<HTMLInputElement> & Omit<Props, "children">;

export function TextField({ label, hint, fault, ...input }: InputProps) {
  return (
    <Field label={label} hint={hint} fault={fault}>
      {(about) => <input {...input} {...about} />}
    </Field>
  );
}

interface SelectProps extends Omit<Props, "children"> {
  value: string;
  none?: string;
  options: readonly { id: string; name: string }[];
  onChange: (id: string) => void;
}

export function SelectField({ label, hint, fault, value, none, options, onChange }: SelectProps) {
  return (
    <Field label={label} hint={hint} fault={fault}>
      {(about) => (
        <select
          {...about}
          className={`${about.className} cursor-pointer`}
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
