import { useQuery } from '@tanstack/react-query';
import { fill, templateFault } from '@vectrum/core/letters';
import { useParams } from 'react-router';
import { api, ask, type Dto, ifMatch } from '../../../api/client';
import { key } from '../../../api/keys';
import { useAct } from '../../../api/use-act';
import { Button } from '../../../ui/button';
import { BlockHead } from '../../../ui/page';
import { AreaField, TextField } from '../../../ui/record/fields';
import { RecordBody } from '../../../ui/record/record-form';
import { useRecord } from '../../../ui/record/use-record';
import { Sheet, ShownSheet } from '../../../ui/sheet';
import { DenseTable } from '../../../ui/table';

type Letter = Dto['LetterDto'];
interface Words {
  subject: string;
  body: string;
}
const BACK = '/setup/letters';
const WORDS = { subject: { label: 'Subject' }, body: { label: 'Words' } };

/** One letter: its words, what they can name, and how it reads with an example. */
export function LetterSheet() {
  const { name = '' } = useParams();
  const query = useQuery({
    queryKey: key('letters', name),
    queryFn: () => ask(api.GET('/api/letters/{name}', { params: { path: { name } } })),
  });
  return (
    <ShownSheet query={query} back={BACK}>
      {(letter) => (
        <Sheet address={`setup/letters/${letter.name}`} title={letter.label} about={letter.when} back={BACK}>
          <Write key={letter.name} letter={letter} />
        </Sheet>
      )}
    </ShownSheet>
  );
}

function Write({ letter }: { letter: Letter }) {
  const params = { path: { name: letter.name } };
  const record = useRecord<Words, undefined>({
    source: { values: { subject: letter.subject, body: letter.body }, version: letter.version },
    save: (body, version, once) =>
      ask(api.PUT('/api/letters/{name}', { params, headers: { ...once, ...ifMatch(version ?? letter.version) }, body })),
  });
  const restore = useAct({ act: (_: void, once) => ask(api.DELETE('/api/letters/{name}', { params, headers: once })) });
  const { subject, body } = record.form.watch();
  const known = letter.values.map((v) => v.name);
  const fault = templateFault(subject, known) ?? templateFault(body, known);
  const example = Object.fromEntries(letter.values.map((v) => [v.name, v.example]));
  return (
    <RecordBody
      record={record}
      words={WORDS}
      keep="Keep these words"
      ready={fault === null}
      wide
      more={
        letter.isOwn && (
          <Button type="button" disabled={restore.isPending} onClick={() => restore.mutate()}>
            As they came
          </Button>
        )
      }
    >
      <TextField name="subject" label={WORDS.subject.label} maxLength={150} />
      <AreaField name="body" label={WORDS.body.label} height={230} />
      {fault && <p className="stamped">{fault}</p>}
      <div className="grid gap-6 sm:grid-cols-2">
        <section aria-label="How it reads">
          <BlockHead>
            <h2>How it reads</h2>
          </BlockHead>
          <b className="block mt-2">{fill(subject, example)}</b>
          <p className="whitespace-pre-wrap mt-2">{fill(body, example)}</p>
        </section>
        <section aria-label="What it can name">
          <BlockHead>
            <h2>What it can name</h2>
          </BlockHead>
          <DenseTable>
            <tbody>
              {letter.values.map((v) => (
                <tr key={v.name}>
                  <td className="code">{`{${v.name}}`}</td>
                  <td className="mid whitespace-normal">{v.says}</td>
                </tr>
              ))}
            </tbody>
          </DenseTable>
          <p className="note mt-2">A paragraph that names only what is empty is left out.</p>
        </section>
      </div>
    </RecordBody>
  );
}
