import { useState } from "react";
import { Button } from "react-bootstrap";
import { useParams } from "react-router";
import { useMay } from "../../parts/session";
import { useTypes } from "../../api/queries";
import { useAddress } from "../../parts/address";
import { clearDraft, readDraft, writeDraft } from "../../parts/drafts";
import { SelectField } from "../../parts/Field";
import { ViewHead } from "../../parts/Sheet";
import { Empty, Problem, QueryView } from "../../parts/states";
import { Tabs } from "../../parts/Tabs";
import type { Schemas } from "../../api/client";
import { useKeepList, useList, useVersions } from "./api";
import { Compare } from "./Compare";
import { ListEdit } from "./ListEdit";
import { changes, nextVersion, type List } from "./model";
import { TryOut } from "./TryOut";
import { Thumb } from "../../parts/Thumb";

/** The checklist of a type: read, edited as a draft, tried out, compared, and kept as a new version. */
export function ListView() {
  const { type = "" } = useParams();
  const types = useTypes();
  const versions = useVersions(type);
  return (
    <QueryView query={types} what="the types">
      {(t) => {
        const entry = t.types.find((x) => x.profile.key === type);
        if (!entry) return <Empty>There is no such type.</Empty>;
        return (
          <QueryView query={versions} what="the versions">
            {(v) => <OneList entry={entry} versions={v.versions} />}
          </QueryView>
        );
      }}
    </QueryView>
  );
}

interface OneProps {
  entry: Schemas["TypeEntry"];
  versions: Schemas["ListVersion"][];
}

function OneList({ entry, versions }: OneProps) {
  const [params, set] = useAddress();
  const newest = versions[0]?.version;
  const version = Number(params.get("v")) || newest;
  const list = useList(entry.profile.key, version);
  return (
    <>
      <ViewHead title={`Checklist of ${entry.profile.name}`}>
        <SelectField
          label="Version"
          value={version}
          onChange={(e) => set({ v: Number(e.target.value) === newest ? "" : e.target.value })}
        >
          {versions.map((x) => (
            <option key={x.version} value={x.version}>
              {x.version} of {x.at.slice(0, 10)}
            </option>
          ))}
        </SelectField>
        <a className="btn btn-outline-primary align-self-end" href="/api/v1/schemas/checklist">
          Form as JSON Schema
        </a>
      </ViewHead>
      {newest === undefined ? (
        <Empty>This type has no checklist yet. Bring one in on the page Set-up.</Empty>
      ) : (
        <QueryView query={list} what="the checklist">
          {(l) => <Draft key={version} entry={entry} versions={versions} list={l} />}
        </QueryView>
      )}
    </>
  );
}

function Draft({ entry, versions, list }: OneProps & { list: List }) {
  const may = useMay();
  const [params, set] = useAddress();
  const tab = params.get("tab") ?? "edit";
  const key = `list-${entry.profile.key}-${list.version}`;
  const [draft, setDraft] = useState<List>(() => ({ ...list, ...readDraft<List>(key) }));
  const [before, setBefore] = useState<List[]>([]);
  const keep = useKeepList(entry.profile.key);
  const differs = changes(list, draft).length > 0;
  const change = (l: List) => {
    setBefore([...before, draft]);
    setDraft(l);
    writeDraft(key, l);
  };
  const undo = () => {
    const last = before.at(-1) ?? list;
    setBefore(before.slice(0, -1));
    setDraft(last);
    if (last === list) clearDraft(key);
    else writeDraft(key, last);
  };
  return (
    <>
      <Tabs
        label="What to do with it"
        tabs={[
          { key: "edit", name: "Items" },
          { key: "try", name: "Try it out" },
          { key: "compare", name: "Compare" },
        ]}
      />
      {tab === "edit" && <ListEdit entry={entry} list={draft} onChange={may() ? change : undefined} />}
      {tab === "try" && <TryOut type={entry.profile.key} list={draft} />}
      {tab === "compare" && <Compare type={entry.profile.key} versions={versions} draft={draft} />}
      {differs && (
        <Thumb>
          {keep.error && <Problem error={keep.error} />}
          <div className="keys d-flex gap-2">
            <Button variant="outline-primary" className="btn-big" onClick={undo}>
              Undo
            </Button>
            <Button
              className="btn-big"
              disabled={keep.isPending}
              onClick={() =>
                keep.mutate(nextVersion(draft, versions[0]!.version), {
                  onSuccess: () => {
                    clearDraft(key);
                    set({ v: "", tab: "" });
                  },
                })
              }
            >
              Keep it as version {versions[0]!.version + 1}
            </Button>
          </div>
        </Thumb>
      )}
    </>
  );
}
