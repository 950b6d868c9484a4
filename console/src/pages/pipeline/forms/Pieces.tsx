import { useState } from "react";
import type { Schemas } from "../../../api/client";
import { nodesAt, type Known } from "../../../editor/completion";
import { valueAt, type Path, type Value } from "../../../editor/edits";
import { Fields } from "../../../editor/forms/Fields";
import { Items } from "../../../editor/forms/Items";
import { plain, Text, Toggle, typed } from "../../../editor/forms/Text";
import type { Writing } from "../../../editor/forms/writing";
import { addUse, beginningOf, PLACES, usesIn, type PlaceOf } from "./uses";

type Input = Schemas["Given"];
type Piece = Known["pieces"][number];

/** The pieces that the file is like, each where it stands, with what it is given; and those that it could be like. */
export function Pieces({ writing, known }: { writing: Writing; known: Known }) {
  const uses = usesIn(writing.opened);
  return (
    <div className="grid grid-cols-[minmax(0,1fr)] gap-3">
      {uses.length === 0 && <p className="m-0 text-ink-2">The file says everything itself; it is like no piece.</p>}
      {uses.map(({ path, where }) => (
        <Use key={path.join(" ")} writing={writing} known={known} path={path} where={where} />
      ))}
      <NewUse writing={writing} known={known} />
    </div>
  );
}

function Use({ writing, known, path, where }: { writing: Writing; known: Known; path: Path; where: string }) {
  const use = (valueAt(writing.opened, path) ?? {}) as Record<string, unknown>;
  const piece = known.pieces.find((each) => each.of === use.of && each.piece.name === use.piece);
  const properties = Object.entries(
    nodesAt(writing.schema, ["like"]).find((node) => node.properties?.piece)?.properties ?? {},
  );
  return (
    <section
      aria-label={`${plain(use.piece)} in ${where}`}
      className="grid min-w-0 gap-3 rounded-[4px] border border-line bg-surface p-3"
    >
      <div className="flex items-baseline gap-2">
        <b>{plain(use.piece)}</b>
        <span className="text-[12px] text-ink-2">
          {use.of === undefined ? "of this file" : `of ${plain(use.of)}`}, in {where}
        </span>
        <span className="grow" />
        <button
          type="button"
          className="btn small quiet-btn"
          aria-label={`Take ${plain(use.piece)} out of ${where}`}
          onClick={() => writing.write(path, undefined)}
        >
          ×
        </button>
      </div>
      {piece ? (
        <>
          <p className="m-0 text-[13px]">
            {piece.piece.summary}
            <span className="block text-[12px] text-ink-2">
              Beside it may be changed: {piece.piece.mayChange.join(", ") || "nothing"}
            </span>
          </p>
          <Fields writing={writing} path={path} properties={properties.filter(([name]) => name === "version")} />
          {piece.piece.inputs.map((input) => (
            <Given key={input.name} writing={writing} path={[...path, "given", input.name]} input={input} />
          ))}
        </>
      ) : (
        <Fields writing={writing} path={path} properties={properties} />
      )}
    </section>
  );
}

/** What a piece is given, asked as its kind is. */
function Given({ writing, path, input }: { writing: Writing; path: Path; input: Input }) {
  const value = valueAt(writing.opened, path);
  const label = path.join("-");
  const absent = input.standard === undefined ? "has to be given" : `if absent: ${input.standard}`;
  const words = (
    <label htmlFor={label} className="text-[12px] text-ink-2">
      <b className="text-ink">{input.name}</b> {input.words} <span className="whitespace-nowrap">({absent})</span>
    </label>
  );
  if (input.kind === "flag") {
    const on = value === undefined ? input.standard === "true" : value === true;
    return (
      <div className="flex items-center gap-2">
        <Toggle id={label} on={on} onChange={(chosen) => writing.write(path, chosen)} />
        {words}
      </div>
    );
  }
  return (
    <div className="grid gap-1">
      {words}
      {input.kind === "one-of" ? (
        <select
          id={label}
          value={plain(value)}
          onChange={(event) => writing.write(path, event.target.value || undefined)}
        >
          <option value="">not said</option>
          {input.of.map((each) => (
            <option key={each}>{each}</option>
          ))}
        </select>
      ) : input.kind === "list" ? (
        <Items writing={writing} path={path} name={input.name} texts mapping={undefined} />
      ) : (
        <Text
          id={label}
          placeholder={input.standard}
          value={plain(value)}
          onWrite={(text) => writing.write(path, input.kind === "number" ? typed(value, text) : text || undefined)}
        />
      )}
    </div>
  );
}

function NewUse({ writing, known }: { writing: Writing; known: Known }) {
  const [chosen, setChosen] = useState("");
  const [where, setWhere] = useState<PlaceOf>("stages");
  const key = (each: Piece) => `${each.of} ${each.piece.name}`;
  const piece = known.pieces.find((each) => key(each) === chosen) ?? known.pieces[0];
  if (!piece)
    return (
      <p className="m-0 text-[13px] text-ink-2">
        No component with pieces is opened to this one. Its settings open one, or <code>paseo component open</code>.
      </p>
    );
  const places = PLACES.filter((place) => place === "the whole file" || piece.piece.parts.includes(place));
  const place = places.includes(where) ? where : (places[1] ?? "the whole file");
  return (
    <form
      className="flex flex-wrap items-end gap-2"
      onSubmit={(event) => {
        event.preventDefault();
        const use: Value = {
          piece: piece.piece.name,
          of: piece.of,
          version: piece.version.replace(/\..*$/, ".*"),
          ...beginningOf(piece.piece.inputs),
        };
        addUse(writing, place, use);
      }}
    >
      <label className="grid gap-1 text-[12px] text-ink-2">
        Be like
        <select value={key(piece)} onChange={(event) => setChosen(event.target.value)}>
          {known.pieces.map((each) => (
            <option key={key(each)} value={key(each)}>
              {each.piece.name} of {each.of}: {each.piece.summary}
            </option>
          ))}
        </select>
      </label>
      <label className="grid gap-1 text-[12px] text-ink-2">
        In
        <select value={place} onChange={(event) => setWhere(event.target.value as PlaceOf)}>
          {places.map((each) => (
            <option key={each}>{each}</option>
          ))}
        </select>
      </label>
      <button type="submit" className="btn small">
        Add piece
      </button>
    </form>
  );
}
