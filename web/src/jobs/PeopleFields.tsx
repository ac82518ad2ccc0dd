import { Form } from "react-bootstrap";
import { Wrong } from "../parts/Field";
import type { Schemas } from "../api/client";
import { postWords } from "./words";

interface Props {
  people: Schemas["Person"][];
  /** The role of each person, by id; without one they are not in the job. */
  posts: Record<string, string>;
  wrong?: string;
  onChange: (posts: Record<string, string>) => void;
}

/** Who is in a job, and as what. */
export function PeopleFields({ people, posts, wrong, onChange }: Props) {
  return (
    <fieldset className="field">
      <legend className="fs-6 fw-semibold">People and their roles</legend>
      <Wrong>{wrong}</Wrong>
      {people
        .filter((p) => p.active && p.roles.some((r) => r !== "reader"))
        .map((p) => (
          <div key={p.id} className="d-flex align-items-center border-bottom py-1">
            <label htmlFor={`post-${p.id}`}>{p.name}</label>
            <Form.Select
              id={`post-${p.id}`}
              value={posts[p.id] ?? ""}
              onChange={(e) => onChange({ ...posts, [p.id]: e.target.value })}
            >
              <option value="">not in this job</option>
              {Object.entries(postWords)
                .filter(([k]) => k !== "rpic" || p.roles.includes("pilot"))
                .map(([k, w]) => (
                  <option key={k} value={k}>
                    {w}
                  </option>
                ))}
            </Form.Select>
          </div>
        ))}
    </fieldset>
  );
}
