import { Filters } from "../parts/Filters";
import { Table, Form } from "react-bootstrap";
import { Explained } from "../parts/Explained";
import { useQuery } from "@tanstack/react-query";
import { api, ask, type Schemas } from "../api/client";
import { keys } from "../api/keys";
import { useMay } from "../parts/session";
import { Rope } from "../drawings/Rope";
import { VerdictMark } from "../parts/Flag";
import { useAddress } from "../parts/address";
import { LongList } from "../parts/LongList";
import { ScrollX } from "../parts/ScrollX";
import { Sheet } from "../parts/Sheet";
import { Empty, QueryView } from "../parts/states";
import { useNow } from "../parts/time";
import { Do, Names, When } from "./DueCells";
import { daysLeft, dueOrders, together, wantedTask } from "./model";
import { ChoiceBox, ChoiceKeys, Several, useChoice } from "./Several";

const spans: [string, number][] = [
  ["14", 14],
  ["60", 60],
  ["180", 180],
];

export function DueList() {
  const due = useQuery({ queryKey: keys.due, queryFn: () => ask(api.GET("/due")) });
  return (
    <QueryView query={due} what="what falls due">
      {(d) => <List d={d} />}
    </QueryView>
  );
}

function List({ d }: { d: Schemas["DueList"] }) {
  const [params, set] = useAddress();
  const now = useNow();
  const within = params.get("within") ?? "60";
  const what = params.get("what") ?? "";
  const limit = spans.find(([k]) => k === within)?.[1];
  const choice = useChoice();
  const may = useMay()("technician");
  const shown = together(
    d.items.filter(
      (i) =>
        (!what || i.what === what) &&
        (i.verdict !== "clear" || limit === undefined || (daysLeft(i, now) ?? Infinity) <= limit),
    ),
  );
  const wanted = shown.flatMap((g) => wantedTask(g[0]!) ?? []);
  return (
    <Sheet
      title="What falls due"
      aside={
        <Filters className="mb-2">
          <Form.Select
            aria-label="Parts or tasks"
            value={what}
            onChange={(e) => set({ what: e.target.value })}
          >
            <option value="">tasks and parts</option>
            <option value="task">tasks</option>
            <option value="part">parts</option>
          </Form.Select>
          <Form.Select
            aria-label="How far to look ahead"
            value={within}
            onChange={(e) => set({ within: e.target.value })}
          >
            <option value="14">in the next 14 days</option>
            <option value="60">in the next 60 days</option>
            <option value="180">in the next 180 days</option>
            <option value="all">everything</option>
          </Form.Select>
        </Filters>
      }
    >
      {shown.length === 0 ? (
        <Empty>Nothing falls due in that time.</Empty>
      ) : (
        <LongList
          items={shown}
          what="what falls due"
          orders={dueOrders}
          tools={may && <ChoiceKeys choice={choice} wanted={wanted} />}
          text={(g) => `${g[0]!.aircraft} ${g.map((i) => i.label).join(" ")} ${g[0]!.sentence}`}
        >
          {(lines) => (
            <ScrollX label="What falls due">
              <Table>
                <thead>
                  <tr>
                    <th>When</th>
                    <th>Aircraft</th>
                    <th>Task or part</th>
                    <th style={{ minWidth: "13rem" }}>Life</th>
                    <th style={{ width: 70 }}>Left</th>
                    <th className="d-print-none">Do</th>
                  </tr>
                </thead>
                <tbody>
                  {lines.map((group) => {
                    const i = group[0]!;
                    return (
                      <tr key={`${i.aircraft_id}-${i.what}-${i.station}-${i.task_id}`}>
                        <td className="text-nowrap">
                          <ChoiceBox choice={choice} w={wantedTask(i)} />{" "}
                          <When i={i} days={daysLeft(i, now)} />
                        </td>
                        <td className="text-nowrap">{i.aircraft}</td>
                        <td>
                          <Names group={group} />
                        </td>
                        <td>
                          <VerdictMark verdict={i.verdict} /> <Explained text={i.sentence} />
                        </td>
                        <td>
                          <Rope used={i.fraction} verdict={i.verdict} label={i.sentence} />
                        </td>
                        <td className="d-print-none">
                          <Do i={i} />
                        </td>
                      </tr>
                    );
                  })}
                </tbody>
              </Table>
            </ScrollX>
          )}
        </LongList>
      )}
      <p className="soft mt-2 mb-0">
        Days by use are a forecast from the last 28 days, the last 14 counted twice.{" "}
        {d.no_date > 0 && `${d.no_date} have a limit but no use and no date.`} The maker&rsquo;s programme
        decides.
      </p>
      <Several choice={choice} wanted={wanted} />
    </Sheet>
  );
}
