import { useParams } from "react-router";
import { useTypes } from "../api/queries";
import { useMay } from "../parts/session";
import { useAddress } from "../parts/address";
import { Sheet, ViewHead } from "../parts/Sheet";
import { Empty, QueryView } from "../parts/states";
import { useUnits } from "../parts/units";
import { TypeForm } from "./TypeForm";
import { blank, blankTyped, typedOf, type Profile } from "./model";

/** A type of aircraft: changed into its next version, copied, or begun from nothing. */
export function TypeView() {
  const { key = "" } = useParams();
  const [params] = useAddress();
  const types = useTypes();
  const u = useUnits();
  const may = useMay()();
  return (
    <QueryView query={types} what="the types">
      {(d) => {
        const from: Profile | undefined =
          key === "new" ? blank : d.types.find((t) => t.profile.key === key)?.profile;
        if (!may)
          return (
            <Sheet title="For the chief">
              <Empty>A chief of the crew changes its types. Set-up shows what they say.</Empty>
            </Sheet>
          );
        if (!from)
          return (
            <Sheet title="No such type">
              <Empty>There is no type {key}. Set-up lists those that the crew has.</Empty>
            </Sheet>
          );
        const copy = key !== "new" && params.get("copy") !== null;
        const title =
          key === "new" ? "A new type" : copy ? `A type like ${from.name}` : `Change ${from.name}`;
        const typed = key === "new" ? blankTyped(u) : typedOf(from, u);
        return (
          <>
            <ViewHead title={title} />
            <TypeForm
              key={title}
              before={from}
              typed={copy ? { ...typed, key: "", name: "" } : typed}
              version={key === "new" || copy ? 1 : from.version + 1}
              isNew={key === "new" || copy}
              like={copy ? from.key : ""}
              types={d.types}
            />
          </>
        );
      }}
    </QueryView>
  );
}
