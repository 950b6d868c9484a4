import { ArrowRight } from "lucide-react";
import { Link } from "react-router";
import type { Schemas } from "../../api/client";

const RECIPE_CHANGES = "list-none text-[13px] [&_code]:mr-1.5 [&_code]:wrap-anywhere";

/** From what is live to what would be. */
export const To = () => (
  <ArrowRight size={13} className="mx-1.25 inline [vertical-align:-2px] text-ink-3" aria-label="to" />
);

export const PartChanges = ({ parts, count }: { parts: Schemas["PartChangeView"][]; count: number }) =>
  parts.length === 0 ? null : (
    <section>
      <h3>{count === 1 ? "1 part differs" : `${count} parts differ`}</h3>
      <ul className={`${RECIPE_CHANGES} max-h-72 overflow-auto`} tabIndex={0} aria-label="Parts that differ">
        {parts.map((each) => (
          <li key={each.name}>
            <Link to={`/packages?name=${encodeURIComponent(each.name)}`}>{each.name}</Link>{" "}
            {each.live.join(", ") || (each.live.length === 0 ? "not there" : "of no version")}
            <To />
            <b>{each.proposed.join(", ") || (each.proposed.length === 0 ? "gone" : "of no version")}</b>
          </li>
        ))}
      </ul>
      {count > parts.length && <p className="quiet">and {count - parts.length} more</p>}
    </section>
  );

export const PieceChanges = ({ pieces }: { pieces: Schemas["RecipeChange"][] }) =>
  pieces.length === 0 ? null : (
    <section>
      <h3>Pieces of the pipeline file</h3>
      <ul className={RECIPE_CHANGES}>
        {pieces.map((each) => (
          <li key={each.what}>
            {each.what} {each.live ?? "none"}
            <To />
            <b>{each.proposed ?? "none"}</b>
          </li>
        ))}
      </ul>
    </section>
  );

export const RecipeChanges = ({
  recipe,
  files,
  live,
}: {
  recipe: Schemas["RecipeChange"][];
  files: Schemas["RecipeChange"][];
  live?: string;
}) => (
  <section>
    <h3>Recipe</h3>
    {live === undefined ? (
      <p className="quiet">There is nothing to compare with.</p>
    ) : recipe.length + files.length === 0 ? (
      <p className="quiet">The same, and so are the files that it brings.</p>
    ) : (
      <ul className={RECIPE_CHANGES}>
        {recipe.slice(0, 8).map((each) => (
          <li key={each.what}>
            <code>{each.what}</code> {each.live ?? "–"}
            <To />
            <b>{each.proposed ?? "–"}</b>
          </li>
        ))}
        {recipe.length > 8 && <li className="quiet">and {recipe.length - 8} more</li>}
        {files.map((each) => (
          <li key={each.what}>
            <code>{each.what}</code> {each.live && each.proposed ? "changed" : each.proposed ? "is new" : "is gone"}
          </li>
        ))}
      </ul>
    )}
  </section>
);
