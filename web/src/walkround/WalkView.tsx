import { useParams } from "react-router";
import { QueryView } from "../parts/states";
import { useWalk } from "./api";
import { Walk } from "./Walk";

/** A walk round one aircraft: the plan with the way round it, and one item at a time. */
export function WalkView() {
  const { id = "" } = useParams();
  const { query, walk, about } = useWalk(id);
  if (!walk)
    return (
      <QueryView query={query} what="the walkround">
        {() => null}
      </QueryView>
    );
  return <Walk w={walk} about={about} />;
}
