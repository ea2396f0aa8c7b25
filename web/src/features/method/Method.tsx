import { useQuery } from "@tanstack/react-query";
import { useEffect } from "react";
import { useLocation } from "react-router";
import type { Schemas } from "../../api/client";
import { method as methodQuery } from "../../api/queries";
import { Notice } from "../../ui/Notice";
import { FitPlot } from "./FitPlot";

/** How the numbers come about: the software's own data, drawn. */
export function Method() {
  const query = useQuery(methodQuery);
  const { hash } = useLocation();
  const ready = query.data !== undefined;
  useEffect(() => {
    if (ready && hash) document.getElementById(hash.slice(1))?.scrollIntoView();
  }, [ready, hash]);
  if (!query.data) return <Notice asked={query} title="Opening the method" />;
  const { sections, fit } = query.data;
  return (
    <main className="max-w-[1180px] px-4 pt-[18px] pb-10 min-[900px]:px-6">
      <header className="border-b border-[var(--ink)] pb-4">
        <h1>Method</h1>
        <p className="quiet">How every number comes about, who says so, and where the model is wrong</p>
      </header>
      <div className="grid gap-x-8 min-[1000px]:grid-cols-[190px_minmax(0,1fr)]">
        <nav aria-label="Sections" className="no-print pt-4 min-[1000px]:sticky min-[1000px]:top-0 min-[1000px]:h-dvh">
          <ul className="grid max-[999px]:grid-cols-2">
            {sections.map((section) => (
              <li key={section.id}>
                <a className="block py-[6px] hover:underline max-[899px]:py-3" href={`#${section.id}`}>
                  {section.title}
                </a>
              </li>
            ))}
          </ul>
        </nav>
        <div className="min-w-0">
          {sections.map((section) => (
            <section
              key={section.id}
              id={section.id}
              aria-label={section.title}
              className="border-b border-[var(--rule)] py-5"
            >
              <h2 className="pb-2">{section.title}</h2>
              {section.text.map((text) => (
                <p key={text} className="max-w-[72ch] pb-2">
                  {text}
                </p>
              ))}
              {section.equations.length > 0 && <Equations equations={section.equations} />}
              {section.id === "fit" && <FitPlot rows={fit} />}
              {section.tables.map((table) => (
                <Table key={table.caption} table={table} folded={section.id === "fit"} />
              ))}
            </section>
          ))}
        </div>
      </div>
    </main>
  );
}

function Equations({ equations }: { equations: Schemas["Equation"][] }) {
  return (
    <dl className="mt-2 grid gap-y-3">
      {equations.map((equation) => (
        <div key={equation.name} className="grid gap-x-4 min-[900px]:grid-cols-[150px_minmax(0,1fr)]">
          <dt className="font-semibold">{equation.name}</dt>
          <dd>
            {equation.text.split(";   ").map((line) => (
              <code key={line} className="block font-mono text-[13px] leading-[19px] [overflow-wrap:anywhere]">
                {line}
              </code>
            ))}
            <span className="quiet text-[13px]">{equation.about}</span>
          </dd>
        </div>
      ))}
    </dl>
  );
}

function Table({ table, folded }: { table: Schemas["Table"]; folded: boolean }) {
  const grid = (
    // biome-ignore lint/a11y/noNoninteractiveTabindex: a wide table is scrolled by the arrow keys
    <section tabIndex={0} aria-label={table.caption} className="overflow-x-auto">
      <table className="w-full border-collapse text-[13px] leading-[17px]">
        <thead>
          <tr>
            {table.columns.map((column, index) => (
              <th
                // biome-ignore lint/suspicious/noArrayIndexKey: columns stand where they stand
                key={index}
                scope="col"
                className="label-text border-b border-[var(--ink)] py-1 pr-3 text-left align-bottom"
              >
                {column || <span className="sr-only">hit or miss</span>}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {table.rows.map((row) => (
            <tr key={row.join("|")}>
              {row.map((cell, index) => (
                // biome-ignore lint/suspicious/noArrayIndexKey: columns stand where they stand
                <td key={index} className="min-w-[104px] border-b border-[var(--rule)] py-[5px] pr-3 align-baseline">
                  {cell}
                </td>
              ))}
            </tr>
          ))}
        </tbody>
      </table>
    </section>
  );
  if (folded) {
    return (
      <details className="mt-4">
        <summary className="cursor-pointer py-2 font-semibold">{table.caption}, as a table</summary>
        {grid}
      </details>
    );
  }
  return (
    <div className="mt-4">
      <h3 className="pb-1">{table.caption}</h3>
      {grid}
    </div>
  );
}
