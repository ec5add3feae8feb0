import { useEffect, useState } from "react";
import styled from "styled-components";
import { dropFilm, filmName, filmsOf, megabytes, type KeptFilm } from "~/store/films";
import { shortTime } from "~/store/format";
import { saveFile } from "~/store/save-file";
import { Button } from "./Button";
import { ConfirmButton } from "./ConfirmButton";
import { Row, Sheet } from "./bits";
import { Trouble } from "./Trouble";

const Film = styled.video`
  width: 100%;
  max-height: 340px;
  border-radius: 10px;
  background: var(--band);
`;

/** Films that were kept with a reading: to look at, to save, to throw away. Nothing where there is none. */
export function KeptFilms({ reading }: { reading: string }) {
  const [films, setFilms] = useState<KeptFilm[]>([]);
  const [problem, tell] = useState<string | null>(null);
  useEffect(() => {
    let gone = false;
    void filmsOf(reading).then((all) => gone || setFilms(all));
    return () => {
      gone = true;
    };
  }, [reading]);
  // It is gone from the page when it is gone from the device: a page that is left meanwhile would show it again.
  const drop = (id: string) =>
    void dropFilm(id).then(
      () => (tell(null), setFilms((all) => all.filter((x) => x.id !== id))),
      () => tell("The film could not be thrown away. Try it once more."),
    );
  return (
    <>
      {films.map((f) => (
        <OneFilm key={f.id} kept={f} onDrop={() => drop(f.id)} />
      ))}
      <Trouble problem={problem} />
    </>
  );
}

function OneFilm({ kept: { film, at }, onDrop }: { kept: KeptFilm; onDrop: () => void }) {
  const [url, setUrl] = useState<string | null>(null);
  useEffect(() => () => URL.revokeObjectURL(url ?? ""), [url]);
  return (
    <Sheet aria-label="The film of this reading">
      <p>
        <strong>The film of this reading</strong>, kept {shortTime(at)}, {megabytes(film)}.
      </p>
      {url && <Film src={url} controls autoPlay muted playsInline aria-label="The film of this reading" />}
      <Row $gap={8}>
        {!url && <Button onPress={() => setUrl(URL.createObjectURL(film))}>Watch the film</Button>}
        <Button $look={url ? "secondary" : "quiet"} onPress={() => saveFile(filmName(film), film, film.type)}>
          Save as a file
        </Button>
        <ConfirmButton
          label="Throw the film away"
          question="Throw this film away?"
          sure="Throw away"
          onConfirm={onDrop}
        />
      </Row>
    </Sheet>
  );
}
