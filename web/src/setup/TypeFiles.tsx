import { useAddType, useAddProgramme, useAddChecklist } from "./api";
import { type Schemas } from "../api/client";
import { BringIn } from "../parts/BringIn";

/** Types, programmes and checklists as files, brought back in. */
export function TypeFiles() {
  const addChecklist = useAddChecklist();
  const addProgramme = useAddProgramme();
  const addType = useAddType();
  return (
    <>
      <FileIn label="Bring in a type file" send={(b) => addType.mutateAsync(b as Schemas["TypeProfile"])} />
      <FileIn
        label="Bring in a maintenance programme"
        send={(b) =>
          addProgramme.mutateAsync({
            key: (b as Schemas["Programme"]).type_key,
            body: b as Schemas["Programme"],
          })
        }
      />
      <FileIn
        label="Bring in a checklist file"
        send={(b) =>
          addChecklist.mutateAsync({ key: (b as Schemas["Checklist"]).type, body: b as Schemas["Checklist"] })
        }
      />
    </>
  );
}

function FileIn({ label, send }: { label: string; send: (body: unknown) => Promise<unknown> }) {
  return (
    <BringIn
      label={label}
      writes={["crew", "programmes"]}
      field={label}
      accept=".json,application/json"
      take={async (file) => {
        let body: unknown;
        try {
          body = JSON.parse(await file.text());
        } catch {
          throw new Error(`${file.name} is not a JSON file. Nothing was changed.`);
        }
        await send(body);
        return `${file.name} is in use from now on.`;
      }}
    />
  );
}
