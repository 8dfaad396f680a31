<?xml version='1.0' encoding='utf-8'?>
<TS version="2.1" language="de" sourcelanguage="en">
  <context>
    <name>canvas</name>
    <message>
      <source>Nothing added: drop samples hold back the {held_back:.1f} % that it would take.</source>
      <translation>Nichts dazu: weggelassene Proben halten die {held_back:.1f} % zurück, die sie nähme.</translation>
    </message>
    <message>
      <source>Added</source>
      <translation>Dazu</translation>
    </message>
    <message>
      <source>removed</source>
      <translation>weg</translation>
    </message>
    <message>
      <source> and </source>
      <translation> und </translation>
    </message>
    <message>
      <source>Changed less than 0.1 %</source>
      <translation>Weniger als 0,1 % geändert</translation>
    </message>
    <message>
      <source>, this piece only</source>
      <translation>, nur dieses Stück</translation>
    </message>
    <message>
      <source>. Drop samples hold back {held_back:.1f} % more</source>
      <translation>. Weggelassene Proben halten weitere {held_back:.1f} % zurück</translation>
    </message>
    <message>
      <source>. {n} samples were replaced</source>
      <translation>. {n} Proben wurden ersetzt</translation>
    </message>
    <message>
      <source>Remove the sample</source>
      <translation>Probe entfernen</translation>
    </message>
    <message>
      <source>Undo</source>
      <translation>Rückgängig</translation>
    </message>
    <message>
      <source>Take it everywhere</source>
      <translation>Überall nehmen</translation>
    </message>
    <message>
      <source>Reach of a sample</source>
      <translation>Reichweite einer Probe</translation>
    </message>
    <message>
      <source>Change area</source>
      <translation>Fläche ändern</translation>
    </message>
    <message>
      <source>Freehand</source>
      <translation>Freihand</translation>
    </message>
    <message>
      <source>Erase stroke</source>
      <translation>Strich löschen</translation>
    </message>
    <message>
      <source>Brush stroke</source>
      <translation>Pinselstrich</translation>
    </message>
    <message>
      <source>Edge outline</source>
      <translation>Kantenlinie</translation>
    </message>
    <message>
      <source>Remove area</source>
      <translation>Fläche entfernen</translation>
    </message>
    <message>
      <source>Opening {name}…</source>
      <translation>{name} wird geöffnet …</translation>
    </message>
    <message>
      <source>Result – Amber Sieve</source>
      <translation>Ergebnis – Amber Sieve</translation>
    </message>
    <message>
      <source>The result alone</source>
      <translation>Das Ergebnis allein</translation>
    </message>
    <message>
      <source>Tolerance</source>
      <translation>Toleranz</translation>
    </message>
    <message>
      <source>Drag tolerance</source>
      <translation>Toleranz ziehen</translation>
    </message>
    <message>
      <source>Inset mask</source>
      <translation>Eingesetzte Maske</translation>
    </message>
    <message>
      <source>The mask of what is seen: drag to move, drag the upper left corner to size</source>
      <translation>Die Maske dessen, was zu sehen ist: ziehen verschiebt, die obere linke Ecke ändert die Größe</translation>
    </message>
    <message>
      <source>Open a picture or a clip (Ctrl+O), or drop one here</source>
      <translation>Ein Bild oder einen Clip öffnen (Strg+O) oder hierher ziehen</translation>
    </message>
    <message>
      <source>Nothing is picked yet.
Click what you want to change in either view.</source>
      <translation>Noch ist nichts ausgewählt.
In einer der Ansichten anklicken, was geändert werden soll.</translation>
    </message>
    <message>
      <source>View: {view}</source>
      <translation>Ansicht: {view}</translation>
    </message>
    <message>
      <source>, the mask covers {share:.1f} %</source>
      <translation>, die Maske bedeckt {share:.1f} %</translation>
    </message>
    <message>
      <source>Zoom {zoom:.0f} %</source>
      <translation>Vergrößerung {zoom:.0f} %</translation>
    </message>
    <message>
      <source>A click here would be a new pick</source>
      <translation>Ein Klick hier wäre eine neue Auswahl</translation>
    </message>
    <message>
      <source>A click here would {role}</source>
      <translation>Ein Klick hier: {role}</translation>
    </message>
    <message>
      <source>everywhere</source>
      <translation>überall</translation>
    </message>
    <message>
      <source>only here</source>
      <translation>nur hier</translation>
    </message>
    <message>
      <source>{what}: tolerance {tolerance:g}, {reach}, {why}</source>
      <translation>{what}: Toleranz {tolerance:g}, {reach}, {why}</translation>
    </message>
    <message>
      <source>levels {red} {green} {blue}</source>
      <translation>Stufen {red} {green} {blue}</translation>
    </message>
    <message>
      <source>mask {masked:.0f} %</source>
      <translation>Maske {masked:.0f} %</translation>
    </message>
    <message>
      <source>mask -</source>
      <translation>Maske -</translation>
    </message>
    <message>
      <source>by {decided}</source>
      <translation>durch {decided}</translation>
    </message>
    <message>
      <source>Twin</source>
      <translation>Doppelt</translation>
    </message>
    <message>
      <source>Inset</source>
      <translation>Einsatz</translation>
    </message>
    <message>
      <source>Single</source>
      <translation>Einzeln</translation>
    </message>
    <message>
      <source>Before and after on either side of a line that can be dragged (W)</source>
      <translation>Vorher und nachher beiderseits einer Linie, die sich ziehen lässt (W)</translation>
    </message>
    <message>
      <source>Wipe</source>
      <translation>Blende</translation>
    </message>
    <message>
      <source>Loupe: the pixels at the pointer, and the mean that would be taken (L)</source>
      <translation>Lupe: die Pixel am Zeiger und der Mittelwert, der genommen würde (L)</translation>
    </message>
    <message>
      <source>Show the whole picture (Ctrl+0)</source>
      <translation>Das ganze Bild zeigen (Strg+0)</translation>
    </message>
    <message>
      <source>One picture pixel for each screen pixel (Ctrl+1)</source>
      <translation>Ein Bildpixel je Bildschirmpixel (Strg+1)</translation>
    </message>
    <message>
      <source>Left view</source>
      <translation>Linke Ansicht</translation>
    </message>
    <message>
      <source>Right view</source>
      <translation>Rechte Ansicht</translation>
    </message>
    <message>
      <source>What this pane shows (keys 1 to 9 and 0 for the pane under the pointer)</source>
      <translation>Was diese Ansicht zeigt (Tasten 1 bis 9 und 0 für die Ansicht unter dem Zeiger)</translation>
    </message>
    <message>
      <source>Layout</source>
      <translation>Anordnung</translation>
    </message>
    <message>
      <source>Picture and mask side by side (T), the mask small in a corner (I), or one view</source>
      <translation>Bild und Maske nebeneinander (T), die Maske klein in einer Ecke (I) oder eine Ansicht</translation>
    </message>
    <message>
      <source>The picture as it was: click to switch, hold to peek (hold O)</source>
      <translation>Das Bild, wie es war: Klick schaltet um, Halten zeigt es kurz (O halten)</translation>
    </message>
    <message>
      <source>Before</source>
      <translation>Vorher</translation>
    </message>
  </context>
  <context>
    <name>clip</name>
    <message>
      <source>Add keyframe, {how}</source>
      <translation>Keyframe setzen, {how}</translation>
    </message>
    <message>
      <source>Delete keyframe</source>
      <translation>Keyframe löschen</translation>
    </message>
    <message>
      <source>Delete all keyframes</source>
      <translation>Alle Keyframes löschen</translation>
    </message>
    <message>
      <source>An area that is gone</source>
      <translation>Eine Fläche, die es nicht mehr gibt</translation>
    </message>
    <message>
      <source>A sample that is gone</source>
      <translation>Eine Probe, die es nicht mehr gibt</translation>
    </message>
    <message>
      <source>{name}: lightness</source>
      <translation>{name}: Helligkeit</translation>
    </message>
    <message>
      <source>Sample {at}</source>
      <translation>Probe {at}</translation>
    </message>
    <message>
      <source>Curves of what is keyed</source>
      <translation>Kurven dessen, was Keyframes hat</translation>
    </message>
    <message>
      <source> (drag the key to move it in time)</source>
      <translation> (den Keyframe ziehen verschiebt ihn in der Zeit)</translation>
    </message>
    <message>
      <source>, tracked with {confidence:.0f} % confidence</source>
      <translation>, verfolgt mit {confidence:.0f} % Sicherheit</translation>
    </message>
    <message>
      <source> px from its first key</source>
      <translation> px von seinem ersten Keyframe</translation>
    </message>
    <message>
      <source>{name}, frame {number}: {value:.4g}{unit}{sure}</source>
      <translation>{name}, Bild {number}: {value:.4g}{unit}{sure}</translation>
    </message>
    <message>
      <source>and {more} more</source>
      <translation>und {more} weitere</translation>
    </message>
    <message>
      <source>Frames</source>
      <translation>Einzelbilder</translation>
    </message>
    <message>
      <source>Frame {number}: covers {coverage:.1f} %, flicker {flicker:.1f} %</source>
      <translation>Bild {number}: bedeckt {coverage:.1f} %, Flimmern {flicker:.1f} %</translation>
    </message>
    <message>
      <source> ({unsteady:.1f} % without Steady)</source>
      <translation> ({unsteady:.1f} % ohne Beruhigen)</translation>
    </message>
    <message>
      <source>, drift {drift:.1f}</source>
      <translation>, Drift {drift:.1f}</translation>
    </message>
    <message>
      <source>Frame {number}</source>
      <translation>Bild {number}</translation>
    </message>
    <message>
      <source>Drift</source>
      <translation>Drift</translation>
    </message>
    <message>
      <source>Flicker</source>
      <translation>Flackern</translation>
    </message>
    <message>
      <source>Coverage</source>
      <translation>Deckung</translation>
    </message>
    <message>
      <source>Flicker without Steady</source>
      <translation>Flackern ohne Beruhigen</translation>
    </message>
    <message>
      <source>Jump</source>
      <translation>Sprung</translation>
    </message>
    <message>
      <source>In</source>
      <translation>Anfang</translation>
    </message>
    <message>
      <source>Out</source>
      <translation>Ende</translation>
    </message>
    <message>
      <source>Curves</source>
      <translation>Kurven</translation>
    </message>
    <message>
      <source>Play or stop (Space)</source>
      <translation>Abspielen oder anhalten (Leertaste)</translation>
    </message>
    <message>
      <source>Previous frame (,)</source>
      <translation>Voriges Bild (,)</translation>
    </message>
    <message>
      <source>Next frame (.)</source>
      <translation>Nächstes Bild (.)</translation>
    </message>
    <message>
      <source>Loop: play from the in point to the out point again and again</source>
      <translation>Schleife: vom Anfangs- zum Endpunkt immer wieder abspielen</translation>
    </message>
    <message>
      <source>In point here ([); again removes it</source>
      <translation>Anfangspunkt hier ([); noch einmal entfernt ihn</translation>
    </message>
    <message>
      <source>Out point here (]); again removes it</source>
      <translation>Endpunkt hier (]); noch einmal entfernt ihn</translation>
    </message>
    <message>
      <source>Coverage over time: how much the mask holds on every frame, its flicker and drift; N goes to the next jump</source>
      <translation>Deckung über die Zeit: wie viel die Maske auf jedem Bild hält, ihr Flimmern und ihre Drift; N geht zum nächsten Sprung</translation>
    </message>
    <message>
      <source>Curves of what is keyed in this sieve, and how sure tracking was</source>
      <translation>Kurven dessen, was in diesem Sieb Keyframes hat, und wie sicher das Verfolgen war</translation>
    </message>
    <message>
      <source>  {dropped} late</source>
      <translation>  {dropped} zu spät</translation>
    </message>
    <message>
      <source>Frame {number} (0 to {frames})   {timecode}{dropped}</source>
      <translation>Bild {number} (0 bis {frames})   {timecode}{dropped}</translation>
    </message>
  </context>
  <context>
    <name>colour</name>
    <message>
      <source>{path} is no CDL file: its name should end in {endings}.</source>
      <translation>{path} ist keine CDL-Datei: Ihr Name muss auf {endings} enden.</translation>
    </message>
    <message>
      <source>{path} could not be read ({strerror}): check its permissions.</source>
      <translation>{path} konnte nicht gelesen werden ({strerror}): Bitte die Zugriffsrechte prüfen.</translation>
    </message>
    <message>
      <source>{path} holds no CDL that can be read: choose another file.</source>
      <translation>{path} enthält keine lesbare CDL: Bitte eine andere Datei wählen.</translation>
    </message>
    <message>
      <source>{path} is no lookup table: give a file that ends in {endings}.</source>
      <translation>{path} ist keine Farbtabelle: Bitte eine Datei angeben, die auf {endings} endet.</translation>
    </message>
    <message>
      <source> or </source>
      <translation> oder </translation>
    </message>
    <message>
      <source>{path} has {size} MB, more than a lookup table needs: choose another.</source>
      <translation>{path} hat {size} MB, mehr als eine Farbtabelle braucht: Bitte eine andere wählen.</translation>
    </message>
    <message>
      <source>{path} holds values that are no numbers: have it written again.</source>
      <translation>{path} enthält Werte, die keine Zahlen sind: Bitte neu schreiben lassen.</translation>
    </message>
    <message>
      <source>{path} has a million nodes or more: make it again with at most 65 on a side.</source>
      <translation>{path} hat eine Million Stützstellen oder mehr: mit höchstens 65 je Seite neu erzeugen.</translation>
    </message>
    <message>
      <source>{path} has decimal commas: have it written with decimal points.</source>
      <translation>{path} enthält Dezimalkommas: mit Dezimalpunkten schreiben lassen.</translation>
    </message>
    <message>
      <source>{path} has a DOMAIN_MIN that is not below its DOMAIN_MAX: have it written again.</source>
      <translation>In {path} liegt DOMAIN_MIN nicht unter DOMAIN_MAX: neu schreiben lassen.</translation>
    </message>
    <message>
      <source>{path} is no lookup table: its name should end in {endings}.</source>
      <translation>{path} ist keine Farbtabelle: Ihr Name muss auf {endings} enden.</translation>
    </message>
    <message>
      <source>The colour configuration {name} cannot be used ({words}): correct $OCIO, or unset it.</source>
      <translation>Die Farbkonfiguration {name} lässt sich nicht verwenden ({words}): Bitte $OCIO berichtigen oder entfernen.</translation>
    </message>
    <message>
      <source>«{name}» cannot be used as a colour space ({words}): choose one of {known} …</source>
      <translation>«{name}» lässt sich nicht als Farbraum verwenden ({words}): Bitte einen von {known} … wählen.</translation>
    </message>
    <message>
      <source>{path} is not a readable lookup table: it is damaged or of a kind that is not known.</source>
      <translation>{path} ist keine lesbare Farbtabelle: beschädigt oder von unbekannter Art.</translation>
    </message>
    <message>
      <source>The process that reads colour tables was ended: try again.</source>
      <translation>Der Prozess, der Farbtabellen liest, wurde beendet: Bitte noch einmal versuchen.</translation>
    </message>
    <message>
      <source>A colour table could not be worked on ({name}: {error}): choose another.</source>
      <translation>Eine Farbtabelle ließ sich nicht verarbeiten ({name}: {error}): Bitte eine andere wählen.</translation>
    </message>
    <message>
      <source>{path} is no ICC profile of a screen or a print: choose an .icc or .icm file.</source>
      <translation>{path} ist kein ICC-Profil eines Bildschirms oder Drucks: Bitte eine .icc- oder .icm-Datei wählen.</translation>
    </message>
    <message>
      <source>{path} is no ICC profile of a screen: choose another.</source>
      <translation>{path} ist kein ICC-Profil eines Bildschirms: Bitte ein anderes wählen.</translation>
    </message>
    <message>
      <source>The profile {path} cannot be used: it is damaged.</source>
      <translation>Das Profil {path} lässt sich nicht verwenden: Es ist beschädigt.</translation>
    </message>
    <message>
      <source>The profile {path} cannot be used for a proof: it is damaged, or lacks the way back.</source>
      <translation>Das Profil {path} lässt sich nicht für einen Softproof verwenden: Es ist beschädigt, oder der Rückweg fehlt.</translation>
    </message>
    <message>
      <source>{trouble} That is what $OCIO names: correct it, or unset it.</source>
      <translation>{trouble} So steht es in $OCIO: berichtigen oder löschen.</translation>
    </message>
    <message>
      <source>«{name}» is not linear, so nothing can be worked in it: choose one of {spaces}.</source>
      <translation>«{name}» ist nicht linear, darin lässt sich nicht arbeiten: Bitte einen von {spaces} wählen.</translation>
    </message>
  </context>
  <context>
    <name>commands</name>
    <message>
      <source>&amp;File</source>
      <translation>&amp;Datei</translation>
    </message>
    <message>
      <source>&amp;Open…</source>
      <translation>&amp;Öffnen …</translation>
    </message>
    <message>
      <source>Open &amp;recent</source>
      <translation>&amp;Zuletzt geöffnet</translation>
    </message>
    <message>
      <source>&amp;Save project</source>
      <translation>Projekt &amp;sichern</translation>
    </message>
    <message>
      <source>Save project &amp;as…</source>
      <translation>Projekt sichern &amp;unter …</translation>
    </message>
    <message>
      <source>&amp;Unsaved work…</source>
      <translation>&amp;Ungesicherte Arbeit …</translation>
    </message>
    <message>
      <source>Work that was not saved when the program ended: restore it, or discard it</source>
      <translation>Arbeit, die beim Ende des Programms nicht gesichert war: wiederherstellen oder verwerfen</translation>
    </message>
    <message>
      <source>&amp;Locate the picture…</source>
      <translation>Bild s&amp;uchen …</translation>
    </message>
    <message>
      <source>&amp;Reset the stack</source>
      <translation>Stapel zu&amp;rücksetzen</translation>
    </message>
    <message>
      <source>All sieves of this picture go; undo brings them back</source>
      <translation>Alle Siebe dieses Bildes verschwinden; Rückgängig bringt sie zurück</translation>
    </message>
    <message>
      <source>&amp;Close picture</source>
      <translation>Bild s&amp;chließen</translation>
    </message>
    <message>
      <source>&amp;Next picture</source>
      <translation>&amp;Nächstes Bild</translation>
    </message>
    <message>
      <source>&amp;Previous picture</source>
      <translation>&amp;Voriges Bild</translation>
    </message>
    <message>
      <source>&amp;Export…</source>
      <translation>&amp;Exportieren …</translation>
    </message>
    <message>
      <source>Export ag&amp;ain</source>
      <translation>N&amp;och einmal exportieren</translation>
    </message>
    <message>
      <source>As it was chosen last</source>
      <translation>Wie zuletzt gewählt</translation>
    </message>
    <message>
      <source>Export &amp;mask…</source>
      <translation>&amp;Maske exportieren …</translation>
    </message>
    <message>
      <source>Export &amp;lookup table…</source>
      <translation>Farb&amp;tabelle exportieren …</translation>
    </message>
    <message>
      <source>Recent e&amp;xports</source>
      <translation>Letzte E&amp;xporte</translation>
    </message>
    <message>
      <source>&amp;Input settings…</source>
      <translation>E&amp;ingabe …</translation>
    </message>
    <message>
      <source>&amp;Batch…</source>
      <translation>&amp;Serie …</translation>
    </message>
    <message>
      <source>Export &amp;queue…</source>
      <translation>Export&amp;warteschlange …</translation>
    </message>
    <message>
      <source>&amp;Quit</source>
      <translation>&amp;Beenden</translation>
    </message>
    <message>
      <source>&amp;Edit</source>
      <translation>&amp;Bearbeiten</translation>
    </message>
    <message>
      <source>&amp;Undo</source>
      <translation>&amp;Rückgängig</translation>
    </message>
    <message>
      <source>&amp;Redo</source>
      <translation>&amp;Wiederholen</translation>
    </message>
    <message>
      <source>&amp;History…</source>
      <translation>&amp;Verlauf …</translation>
    </message>
    <message>
      <source>&amp;Reach of the sample: here or everywhere</source>
      <translation>Reich&amp;weite der Probe: hier oder überall</translation>
    </message>
    <message>
      <source>The chosen samples, or the last: here, or everywhere</source>
      <translation>Die gewählten Proben oder die letzte: hier oder überall</translation>
    </message>
    <message>
      <source>&amp;Preferences…</source>
      <translation>&amp;Einstellungen …</translation>
    </message>
    <message>
      <source>&amp;Stack</source>
      <translation>&amp;Stapel</translation>
    </message>
    <message>
      <source>&amp;Add sieve</source>
      <translation>Sieb &amp;hinzufügen</translation>
    </message>
    <message>
      <source>&amp;Duplicate sieve</source>
      <translation>Sieb &amp;verdoppeln</translation>
    </message>
    <message>
      <source>Add a sieve for &amp;leftovers</source>
      <translation>Sieb für &amp;Reste hinzufügen</translation>
    </message>
    <message>
      <source>What still has the colours of this sieve after it: draw an area round the spots, then recolour or fill them</source>
      <translation>Was nach diesem Sieb noch dessen Farben hat: eine Fläche um die Stellen ziehen, dann umfärben oder füllen</translation>
    </message>
    <message>
      <source>Add a sieve for the r&amp;est</source>
      <translation>Sieb für das Üb&amp;rige hinzufügen</translation>
    </message>
    <message>
      <source>All that the other sieves leave: for one colour in a grey picture, or all but some things</source>
      <translation>Alles, was die anderen Siebe lassen: für eine Farbe in einem grauen Bild oder alles außer einigen Dingen</translation>
    </message>
    <message>
      <source>Re&amp;name sieve</source>
      <translation>Sieb um&amp;benennen</translation>
    </message>
    <message>
      <source>Remove sieve</source>
      <translation>Sieb entfernen</translation>
    </message>
    <message>
      <source>Move &amp;up</source>
      <translation>Nach &amp;oben</translation>
    </message>
    <message>
      <source>Move d&amp;own</source>
      <translation>Nach &amp;unten</translation>
    </message>
    <message>
      <source>&amp;Solo</source>
      <translation>A&amp;llein</translation>
    </message>
    <message>
      <source>Only this sieve works</source>
      <translation>Nur dieses Sieb wirkt</translation>
    </message>
    <message>
      <source>&amp;Copy sieve</source>
      <translation>Sieb &amp;kopieren</translation>
    </message>
    <message>
      <source>Copy all sieves</source>
      <translation>Alle Siebe kopieren</translation>
    </message>
    <message>
      <source>&amp;Paste sieve</source>
      <translation>Sieb &amp;einfügen</translation>
    </message>
    <message>
      <source>Paste only its &amp;mask</source>
      <translation>Nur dessen &amp;Maske einfügen</translation>
    </message>
    <message>
      <source>Paste only its ad&amp;justments</source>
      <translation>Nur dessen &amp;Anpassungen einfügen</translation>
    </message>
    <message>
      <source>Sieve p&amp;resets…</source>
      <translation>Sie&amp;bvorgaben …</translation>
    </message>
    <message>
      <source>Mask &amp;from</source>
      <translation>Maske &amp;von</translation>
    </message>
    <message>
      <source>&amp;Groups</source>
      <translation>&amp;Gruppen</translation>
    </message>
    <message>
      <source>&amp;Takes</source>
      <translation>&amp;Fassungen</translation>
    </message>
    <message>
      <source>&amp;Clip</source>
      <translation>&amp;Clip</translation>
    </message>
    <message>
      <source>&amp;Play or stop</source>
      <translation>Abs&amp;pielen oder anhalten</translation>
    </message>
    <message>
      <source>&amp;In point here</source>
      <translation>An&amp;fangspunkt hier</translation>
    </message>
    <message>
      <source>&amp;Out point here</source>
      <translation>&amp;Endpunkt hier</translation>
    </message>
    <message>
      <source>Next coverage &amp;jump</source>
      <translation>Nächster Deckungs&amp;sprung</translation>
    </message>
    <message>
      <source>Previous coverage jump</source>
      <translation>Voriger Deckungssprung</translation>
    </message>
    <message>
      <source>&amp;Next keyframe</source>
      <translation>&amp;Nächster Keyframe</translation>
    </message>
    <message>
      <source>&amp;Previous keyframe</source>
      <translation>&amp;Voriger Keyframe</translation>
    </message>
    <message>
      <source>Add &amp;keyframe: samples</source>
      <translation>&amp;Keyframe setzen: Proben</translation>
    </message>
    <message>
      <source>The colours as they are on this frame, from here on</source>
      <translation>Die Farben, wie sie auf diesem Bild sind, von hier an</translation>
    </message>
    <message>
      <source>Add keyframe: &amp;area</source>
      <translation>Keyframe setzen: Fl&amp;äche</translation>
    </message>
    <message>
      <source>The chosen area may lie elsewhere on other frames</source>
      <translation>Die gewählte Fläche kann auf anderen Bildern woanders liegen</translation>
    </message>
    <message>
      <source>Remove the area's keyframes</source>
      <translation>Keyframes der Fläche entfernen</translation>
    </message>
    <message>
      <source>Track the area &amp;forwards</source>
      <translation>Fläche &amp;vorwärts verfolgen</translation>
    </message>
    <message>
      <source>Position</source>
      <translation>Lage</translation>
    </message>
    <message>
      <source>Position, size and rotation</source>
      <translation>Lage, Größe und Drehung</translation>
    </message>
    <message>
      <source>Perspective</source>
      <translation>Perspektive</translation>
    </message>
    <message>
      <source>Track the area back&amp;wards</source>
      <translation>Fläche &amp;rückwärts verfolgen</translation>
    </message>
    <message>
      <source>&amp;View</source>
      <translation>&amp;Ansicht</translation>
    </message>
    <message>
      <source>&amp;Fit</source>
      <translation>&amp;Einpassen</translation>
    </message>
    <message>
      <source>Zoom &amp;in</source>
      <translation>Ver&amp;größern</translation>
    </message>
    <message>
      <source>Zoom &amp;out</source>
      <translation>Ver&amp;kleinern</translation>
    </message>
    <message>
      <source>&amp;Twin view</source>
      <translation>&amp;Doppelansicht</translation>
    </message>
    <message>
      <source>Picture and mask side by side</source>
      <translation>Bild und Maske nebeneinander</translation>
    </message>
    <message>
      <source>&amp;Inset mask</source>
      <translation>E&amp;ingesetzte Maske</translation>
    </message>
    <message>
      <source>The mask small in a corner of the picture</source>
      <translation>Die Maske klein in einer Ecke des Bildes</translation>
    </message>
    <message>
      <source>&amp;Hide or show all panels</source>
      <translation>Alle &amp;Bedienfelder verbergen oder zeigen</translation>
    </message>
    <message>
      <source>Only the picture, or the panels again</source>
      <translation>Nur das Bild, oder wieder die Bedienfelder</translation>
    </message>
    <message>
      <source>S&amp;copes</source>
      <translation>&amp;Messinstrumente</translation>
    </message>
    <message>
      <source>Waveform, parade, vectorscope and histogram, live</source>
      <translation>Wellenform, Parade, Vektorskop und Histogramm, laufend</translation>
    </message>
    <message>
      <source>&amp;Panels</source>
      <translation>Bedienfe&amp;lder</translation>
    </message>
    <message>
      <source>&amp;Wipe</source>
      <translation>Ble&amp;nde</translation>
    </message>
    <message>
      <source>Before and after on either side of a line</source>
      <translation>Vorher und nachher beiderseits einer Linie</translation>
    </message>
    <message>
      <source>&amp;Before and after side by side</source>
      <translation>&amp;Vorher und nachher nebeneinander</translation>
    </message>
    <message>
      <source>The picture as it was and the result side by side</source>
      <translation>Das Bild, wie es war, und das Ergebnis nebeneinander</translation>
    </message>
    <message>
      <source>&amp;Loupe</source>
      <translation>L&amp;upe</translation>
    </message>
    <message>
      <source>The pixels at the pointer</source>
      <translation>Die Pixel am Zeiger</translation>
    </message>
    <message>
      <source>&amp;Marks on the picture</source>
      <translation>Mar&amp;ken auf dem Bild</translation>
    </message>
    <message>
      <source>Samples and areas are drawn over the picture; they fade on Adjust, while something is dragged and in before and after</source>
      <translation>Proben und Flächen sind über das Bild gezeichnet; sie verblassen auf „Anpassen“, während etwas gezogen wird und bei Vorher und Nachher</translation>
    </message>
    <message>
      <source>Loo&amp;k before a click</source>
      <translation>V&amp;or dem Klick sehen</translation>
    </message>
    <message>
      <source>Where the pointer rests, the mask shows what a click there would give; hold Q for as long as that</source>
      <translation>Wo der Zeiger ruht, zeigt die Maske, was ein Klick dort ergäbe; für so lange Q halten</translation>
    </message>
    <message>
      <source>Offer the &amp;next click</source>
      <translation>Den nächsten Klick an&amp;bieten</translation>
    </message>
    <message>
      <source>A small ring where the mask is least sure: a click there is likely to change most</source>
      <translation>Ein kleiner Ring, wo die Maske am unsichersten ist: Ein Klick dort ändert wohl am meisten</translation>
    </message>
    <message>
      <source>Wh&amp;y is this pixel in or out?</source>
      <translation>&amp;Warum ist dieses Pixel drin oder draußen?</translation>
    </message>
    <message>
      <source>What decided about the pixel under the pointer, and which control would change it</source>
      <translation>Was über das Pixel unter dem Zeiger entschied, und welcher Regler es ändern würde</translation>
    </message>
    <message>
      <source>Result on another &amp;screen</source>
      <translation>Ergebnis auf einem anderen Bildschi&amp;rm</translation>
    </message>
    <message>
      <source>The result alone, full-screen on another screen; it shows the part that the window shows</source>
      <translation>Das Ergebnis allein, auf einem anderen Bildschirm; es zeigt den Teil, den das Fenster zeigt</translation>
    </message>
    <message>
      <source>Keyboard &amp;cursor on the picture</source>
      <translation>&amp;Zeiger auf dem Bild mit Tasten führen</translation>
    </message>
    <message>
      <source>Arrow keys move it, Enter clicks, Space presses and lets go, Escape ends it</source>
      <translation>Pfeiltasten bewegen ihn, Enter klickt, die Leertaste drückt und lässt los, Escape beendet es</translation>
    </message>
    <message>
      <source>&amp;Large colour field</source>
      <translation>&amp;Großes Farbfeld</translation>
    </message>
    <message>
      <source>Soft &amp;proof</source>
      <translation>Soft&amp;proof</translation>
    </message>
    <message>
      <source>Off</source>
      <translation>Aus</translation>
    </message>
    <message>
      <source>ICC profile…</source>
      <translation>ICC-Profil …</translation>
    </message>
    <message>
      <source>Mark what is outside its gamut</source>
      <translation>Markieren, was außerhalb seines Farbumfangs liegt</translation>
    </message>
    <message>
      <source>S&amp;creen profile</source>
      <translation>Bild&amp;schirmprofil</translation>
    </message>
    <message>
      <source>None</source>
      <translation>Keines</translation>
    </message>
    <message>
      <source>&amp;Surround</source>
      <translation>&amp;Umgebung</translation>
    </message>
    <message>
      <source>Dark</source>
      <translation>Dunkel</translation>
    </message>
    <message>
      <source>Mid</source>
      <translation>Mittel</translation>
    </message>
    <message>
      <source>Light</source>
      <translation>Hell</translation>
    </message>
    <message>
      <source>&amp;Veil</source>
      <translation>S&amp;chleier</translation>
    </message>
    <message>
      <source>Over the mask</source>
      <translation>Über der Maske</translation>
    </message>
    <message>
      <source>Over the rest</source>
      <translation>Über dem Rest</translation>
    </message>
    <message>
      <source>Automatic colour, far from what it covers</source>
      <translation>Automatische Farbe, weit entfernt von dem, was sie bedeckt</translation>
    </message>
    <message>
      <source>Choose a colour…</source>
      <translation>Eine Farbe wählen …</translation>
    </message>
    <message>
      <source>30 % opaque</source>
      <translation>30 % deckend</translation>
    </message>
    <message>
      <source>60 % opaque</source>
      <translation>60 % deckend</translation>
    </message>
    <message>
      <source>90 % opaque</source>
      <translation>90 % deckend</translation>
    </message>
    <message>
      <source>Colour field follows the view</source>
      <translation>Farbfeld folgt der Ansicht</translation>
    </message>
    <message>
      <source>&amp;Go</source>
      <translation>&amp;Gehe zu</translation>
    </message>
    <message>
      <source>&amp;Pick</source>
      <translation>&amp;Auswahl</translation>
    </message>
    <message>
      <source>&amp;Bands</source>
      <translation>&amp;Bänder</translation>
    </message>
    <message>
      <source>&amp;Edge</source>
      <translation>&amp;Rand</translation>
    </message>
    <message>
      <source>&amp;Areas</source>
      <translation>&amp;Flächen</translation>
    </message>
    <message>
      <source>&amp;Adjust</source>
      <translation>A&amp;npassen</translation>
    </message>
    <message>
      <source>&amp;Help</source>
      <translation>&amp;Hilfe</translation>
    </message>
    <message>
      <source>&amp;Guide</source>
      <translation>&amp;Anleitung</translation>
    </message>
    <message>
      <source>What each thing is for, page by page, without a network</source>
      <translation>Wozu jedes Ding dient, Seite für Seite, ohne Netz</translation>
    </message>
    <message>
      <source>Take the &amp;tour</source>
      <translation>Einen &amp;Rundgang machen</translation>
    </message>
    <message>
      <source>Six steps on the demo, each in your own hands</source>
      <translation>Sechs Schritte an der Demo, jeder in eigener Hand</translation>
    </message>
    <message>
      <source>&amp;Keys and gestures</source>
      <translation>&amp;Tasten und Gesten</translation>
    </message>
    <message>
      <source>&amp;Find anything…</source>
      <translation>Alles &amp;finden …</translation>
    </message>
    <message>
      <source>Commands, numbers, sieves, takes, presets, pictures and the guide, by name</source>
      <translation>Befehle, Zahlen, Siebe, Fassungen, Vorgaben, Bilder und die Anleitung, nach Namen</translation>
    </message>
  </context>
  <context>
    <name>control surface</name>
    <message>
      <source>Disc: sideways turns the first dial, up and down the second</source>
      <translation>Scheibe: seitwärts dreht den ersten Regler, auf und ab den zweiten</translation>
    </message>
    <message>
      <source>Simulated surface – Amber Sieve</source>
      <translation>Simuliertes Bedienpult – Amber Sieve</translation>
    </message>
    <message>
      <source>Nobody answers at port {port}: switch it on in the preferences.</source>
      <translation>An Port {port} antwortet niemand: Bitte in den Einstellungen einschalten.</translation>
    </message>
    <message>
      <source>Dial {number}</source>
      <translation>Drehregler {number}</translation>
    </message>
    <message>
      <source>Numbers back</source>
      <translation>Werte zurück</translation>
    </message>
    <message>
      <source>Numbers on</source>
      <translation>Werte weiter</translation>
    </message>
    <message>
      <source>Sieve up</source>
      <translation>Sieb auf</translation>
    </message>
    <message>
      <source>Sieve down</source>
      <translation>Sieb ab</translation>
    </message>
    <message>
      <source>Frame back</source>
      <translation>Bild zurück</translation>
    </message>
    <message>
      <source>Frame on</source>
      <translation>Bild vor</translation>
    </message>
    <message>
      <source>Play</source>
      <translation>Abspielen</translation>
    </message>
    <message>
      <source>Undo</source>
      <translation>Rückgängig</translation>
    </message>
    <message>
      <source>Redo</source>
      <translation>Wiederholen</translation>
    </message>
    <message>
      <source>Before</source>
      <translation>Vorher</translation>
    </message>
    <message>
      <source>frame {frame} of {last}</source>
      <translation>Bild {frame} von {last}</translation>
    </message>
  </context>
  <context>
    <name>desk</name>
    <message>
      <source>Amber Sieve for the first time: preparing for this computer, about a minute</source>
      <translation>Amber Sieve zum ersten Mal: Vorbereitung für diesen Rechner, etwa eine Minute</translation>
    </message>
    <message>
      <source>Preparing for this computer (once)</source>
      <translation>Vorbereitung für diesen Rechner (einmalig)</translation>
    </message>
  </context>
  <context>
    <name>dialogs</name>
    <message>
      <source>Pictures</source>
      <translation>Bilder</translation>
    </message>
    <message>
      <source>Those on the tray, each by its own stack</source>
      <translation>Die auf der Ablage, jedes mit seinem eigenen Stapel</translation>
    </message>
    <message>
      <source>Files, by this stack</source>
      <translation>Dateien, mit diesem Stapel</translation>
    </message>
    <message>
      <source>A folder, by this stack</source>
      <translation>Ein Ordner, mit diesem Stapel</translation>
    </message>
    <message>
      <source>Batch</source>
      <translation>Serie</translation>
    </message>
    <message>
      <source>Which pictures</source>
      <translation>Welche Bilder</translation>
    </message>
    <message>
      <source>Choose pictures…</source>
      <translation>Bilder wählen …</translation>
    </message>
    <message>
      <source>Choose a folder…</source>
      <translation>Einen Ordner wählen …</translation>
    </message>
    <message>
      <source>Pictures of the batch</source>
      <translation>Bilder der Serie</translation>
    </message>
    <message>
      <source>As it came</source>
      <translation>Wie es kam</translation>
    </message>
    <message>
      <source>Format</source>
      <translation>Format</translation>
    </message>
    <message>
      <source>Depth</source>
      <translation>Tiefe</translation>
    </message>
    <message>
      <source>Preset</source>
      <translation>Vorgabe</translation>
    </message>
    <message>
      <source>Custom</source>
      <translation>Eigene</translation>
    </message>
    <message>
      <source>{name} of the picture, {sieve}, {date}, {frame} for its number</source>
      <translation>{name} des Bildes, {sieve}, {date}, {frame} für seine Nummer</translation>
    </message>
    <message>
      <source>Look first: write the report alone</source>
      <translation>Erst ansehen: nur den Bericht schreiben</translation>
    </message>
    <message>
      <source>A page with each picture's mask, its coverage and its light, what stands out first; no picture is written</source>
      <translation>Eine Seite mit der Maske, dem Anteil und dem Licht jedes Bildes, Auffälliges zuerst; es wird kein Bild geschrieben</translation>
    </message>
    <message>
      <source>Resampling</source>
      <translation>Neuberechnung</translation>
    </message>
    <message>
      <source>Profile</source>
      <translation>Profil</translation>
    </message>
    <message>
      <source>Name</source>
      <translation>Name</translation>
    </message>
    <message>
      <source>Write into</source>
      <translation>Schreiben in</translation>
    </message>
    <message>
      <source>The first result</source>
      <translation>Das erste Ergebnis</translation>
    </message>
    <message>
      <source>Render</source>
      <translation>Rendern</translation>
    </message>
    <message>
      <source>Folder of pictures</source>
      <translation>Ordner mit Bildern</translation>
    </message>
    <message>
      <source>{readable};;All files (*)</source>
      <translation>{readable};;Alle Dateien (*)</translation>
    </message>
    <message>
      <source>Folder to write into</source>
      <translation>Ordner, in den geschrieben wird</translation>
    </message>
    <message numerus="yes">
      <source>{n} pictures, each written as it came</source>
      <comment>{n} picture, written as it came</comment>
      <translation>
        <numerusform>{n} Bild, geschrieben, wie es kam</numerusform>
        <numerusform>{n} Bilder, jedes geschrieben, wie es kam</numerusform>
      </translation>
    </message>
    <message numerus="yes">
      <source>{n} pictures, written as {ending}</source>
      <comment>{n} picture, written as {ending}</comment>
      <translation>
        <numerusform>{n} Bild, geschrieben als {ending}</numerusform>
        <numerusform>{n} Bilder, geschrieben als {ending}</numerusform>
      </translation>
    </message>
    <message>
      <source>{count}; clips on the tray are exported by themselves.</source>
      <translation>{count}; Clips auf der Ablage werden für sich exportiert.</translation>
    </message>
    <message>
      <source>Choose pictures first.</source>
      <translation>Zuerst Bilder wählen.</translation>
    </message>
    <message>
      <source>Export</source>
      <translation>Exportieren</translation>
    </message>
    <message>
      <source>Frames</source>
      <translation>Einzelbilder</translation>
    </message>
    <message>
      <source>Contents</source>
      <translation>Inhalt</translation>
    </message>
    <message>
      <source>{name} of the picture, {sieve}, {date}, {frame}</source>
      <translation>{name} des Bildes, {sieve}, {date}, {frame}</translation>
    </message>
    <message>
      <source>Skip existing files</source>
      <translation>Vorhandene Dateien überspringen</translation>
    </message>
    <message>
      <source>Put {text} into the name</source>
      <translation>{text} in den Namen setzen</translation>
    </message>
    <message>
      <source>Folder</source>
      <translation>Ordner</translation>
    </message>
    <message>
      <source>Export into</source>
      <translation>Exportieren nach</translation>
    </message>
    <message>
      <source>, is there already</source>
      <translation>, ist schon da</translation>
    </message>
    <message>
      <source>Codes of sRGB in and out</source>
      <translation>sRGB-Codes hinein und heraus</translation>
    </message>
    <message>
      <source>Left out: {left_out}</source>
      <translation>Weggelassen: {left_out}</translation>
    </message>
    <message>
      <source>All that {sieve} does</source>
      <translation>Alles, was {sieve} tut</translation>
    </message>
    <message>
      <source>{name} is there already. Write over it?</source>
      <translation>{name} ist schon da. Überschreiben?</translation>
    </message>
    <message>
      <source>Lookup table</source>
      <translation>Farbtabelle</translation>
    </message>
    <message>
      <source>{name}, numbered</source>
      <translation>{name}, nummeriert</translation>
    </message>
    <message>
      <source>{size} nodes on a side</source>
      <translation>{size} Knoten je Seite</translation>
    </message>
    <message>
      <source>This frame</source>
      <translation>Dieses Bild</translation>
    </message>
    <message>
      <source>All frames</source>
      <translation>Alle Bilder</translation>
    </message>
    <message>
      <source>From in to out point</source>
      <translation>Vom Anfangs- zum Endpunkt</translation>
    </message>
    <message>
      <source>Codec</source>
      <translation>Codec</translation>
    </message>
    <message>
      <source>Table</source>
      <translation>Tabelle</translation>
    </message>
    <message>
      <source>{count} frames of {width} × {height} pixels</source>
      <translation>{count} Bilder mit {width} × {height} Pixeln</translation>
    </message>
    <message>
      <source>{width} × {height} pixels, {takes}</source>
      <translation>{width} × {height} Pixel, {takes}</translation>
    </message>
    <message>
      <source>&lt;br&gt;Left out: {line}</source>
      <translation>&lt;br&gt;Weggelassen: {line}</translation>
    </message>
    <message>
      <source>Above through the table, below the real result: largest ΔE2000 {whole:.1f}. Of what depends on colour alone: mean {mean:.2f}, largest {largest:.1f}.{left}</source>
      <translation>Oben durch die Tabelle, unten das echte Ergebnis: größtes ΔE2000 {whole:.1f}. Bei dem, was allein von der Farbe abhängt: Mittel {mean:.2f}, größtes {largest:.1f}.{left}</translation>
    </message>
    <message>
      <source>Find</source>
      <translation>Finden</translation>
    </message>
    <message>
      <source>A command, number, sieve, picture …; “hue 40” sets a number</source>
      <translation>Befehl, Zahl, Sieb, Bild …; „farbton 40“ setzt eine Zahl</translation>
    </message>
    <message>
      <source>What was found</source>
      <translation>Gefundenes</translation>
    </message>
    <message>
      <source>Quality</source>
      <translation>Qualität</translation>
    </message>
    <message>
      <source>Size</source>
      <translation>Größe</translation>
    </message>
    <message>
      <source>How it is resampled. Best: means where it shrinks, Lanczos where it grows</source>
      <translation>Wie die Größe umgerechnet wird. Am besten: Mittelwerte beim Verkleinern, Lanczos beim Vergrößern</translation>
    </message>
    <message>
      <source>The picture's own</source>
      <translation>Das des Bildes</translation>
    </message>
    <message>
      <source>Premultiplied alpha</source>
      <translation>Alpha vormultipliziert</translation>
    </message>
    <message>
      <source>Keep metadata</source>
      <translation>Metadaten behalten</translation>
    </message>
    <message>
      <source>Half float</source>
      <translation>Halbe Gleitkommazahl</translation>
    </message>
    <message>
      <source>Float</source>
      <translation>Gleitkommazahl</translation>
    </message>
    <message>
      <source>Find a format: MOV, ProRes, 16 bit, cube, matte…</source>
      <translation>Ein Format finden: MOV, ProRes, 16 bit, cube, Maske …</translation>
    </message>
    <message>
      <source>Find a format</source>
      <translation>Format suchen</translation>
    </message>
    <message>
      <source>Guide</source>
      <translation>Anleitung</translation>
    </message>
    <message>
      <source>Pages of the guide</source>
      <translation>Seiten der Anleitung</translation>
    </message>
    <message>
      <source>Page of the guide</source>
      <translation>Seite der Anleitung</translation>
    </message>
    <message>
      <source>History</source>
      <translation>Verlauf</translation>
    </message>
    <message>
      <source>Exports</source>
      <translation>Exporte</translation>
    </message>
    <message>
      <source>Pause</source>
      <translation>Pause</translation>
    </message>
    <message>
      <source>Stop</source>
      <translation>Anhalten</translation>
    </message>
    <message>
      <source>Waiting</source>
      <translation>Wartend</translation>
    </message>
    <message>
      <source>Remove</source>
      <translation>Entfernen</translation>
    </message>
    <message>
      <source>Move up</source>
      <translation>Nach oben</translation>
    </message>
    <message>
      <source>Move down</source>
      <translation>Nach unten</translation>
    </message>
    <message>
      <source>Nothing is being exported</source>
      <translation>Es wird nichts exportiert</translation>
    </message>
    <message>
      <source>Resume</source>
      <translation>Fortsetzen</translation>
    </message>
    <message>
      <source>, {left:.0f} s left</source>
      <translation>, noch {left:.0f} s</translation>
    </message>
    <message>
      <source>Click a colour in {name}</source>
      <translation>Eine Farbe in {name} anklicken</translation>
    </message>
    <message>
      <source>Opening {name}</source>
      <translation>{name} wird geöffnet</translation>
    </message>
    <message>
      <source>Take a colour from a picture</source>
      <translation>Eine Farbe aus einem Bild nehmen</translation>
    </message>
    <message>
      <source>Save…</source>
      <translation>Sichern …</translation>
    </message>
    <message>
      <source>Save all of this as a preset</source>
      <translation>All das als Vorgabe sichern</translation>
    </message>
    <message>
      <source>Save preset</source>
      <translation>Vorgabe sichern</translation>
    </message>
    <message>
      <source>As the file says</source>
      <translation>Wie die Datei sagt</translation>
    </message>
    <message>
      <source>As the stream says</source>
      <translation>Wie der Datenstrom sagt</translation>
    </message>
    <message>
      <source>Linear Rec. 709</source>
      <translation>Linear Rec. 709</translation>
    </message>
    <message>
      <source>Input settings</source>
      <translation>Eingabe</translation>
    </message>
    <message>
      <source>Part</source>
      <translation>Teil</translation>
    </message>
    <message>
      <source>Colour space</source>
      <translation>Farbraum</translation>
    </message>
    <message>
      <source>Working space</source>
      <translation>Arbeitsfarbraum</translation>
    </message>
    <message>
      <source>Display</source>
      <translation>Anzeige</translation>
    </message>
    <message>
      <source>What the file's codes stand for: a camera's log encoding, or another space of the colour configuration ($OCIO)</source>
      <translation>Wofür die Codes der Datei stehen: die Log-Kodierung einer Kamera oder ein anderer Raum der Farbkonfiguration ($OCIO)</translation>
    </message>
    <message>
      <source>The light in whose channels CDL and curves work</source>
      <translation>Das Licht, in dessen Kanälen CDL und Kurven arbeiten</translation>
    </message>
    <message>
      <source>What light is turned into for the screen and for files of 8 and 16 bits</source>
      <translation>Worin Licht für den Bildschirm und für Dateien mit 8 und 16 Bit verwandelt wird</translation>
    </message>
    <message>
      <source>As shot</source>
      <translation>Wie aufgenommen</translation>
    </message>
    <message>
      <source>Pick a grey place…</source>
      <translation>Eine graue Stelle wählen …</translation>
    </message>
    <message>
      <source>Deinterlace</source>
      <translation>Deinterlacen</translation>
    </message>
    <message>
      <source>Makes whole frames of both fields: woven where nothing moves, filled in where something does</source>
      <translation>Macht ganze Bilder aus beiden Halbbildern: verwoben, wo sich nichts bewegt, ergänzt, wo sich etwas bewegt</translation>
    </message>
    <message>
      <source>White balance</source>
      <translation>Weißabgleich</translation>
    </message>
    <message>
      <source>Interlaced</source>
      <translation>Interlaced</translation>
    </message>
    <message>
      <source>Click what should be grey</source>
      <translation>Anklicken, was grau sein soll</translation>
    </message>
    <message>
      <source>Only one</source>
      <translation>Nur einer</translation>
    </message>
    <message>
      <source>from {place:.0f}, {down:.0f}</source>
      <translation>von {place:.0f}, {down:.0f}</translation>
    </message>
    <message>
      <source>as shot</source>
      <translation>wie aufgenommen</translation>
    </message>
    <message>
      <source>Sieve presets (*.json)</source>
      <translation>Siebvorgaben (*.json)</translation>
    </message>
    <message>
      <source>Sieve presets</source>
      <translation>Siebvorgaben</translation>
    </message>
    <message>
      <source>Presets</source>
      <translation>Vorgaben</translation>
    </message>
    <message>
      <source>Use</source>
      <translation>Verwenden</translation>
    </message>
    <message>
      <source>Save this sieve…</source>
      <translation>Dieses Sieb sichern …</translation>
    </message>
    <message>
      <source>Import…</source>
      <translation>Import …</translation>
    </message>
    <message>
      <source>Export…</source>
      <translation>Export …</translation>
    </message>
    <message>
      <source>Preset {name}</source>
      <translation>Vorgabe {name}</translation>
    </message>
    <message>
      <source>Save sieve preset</source>
      <translation>Siebvorgabe sichern</translation>
    </message>
    <message>
      <source>Name:</source>
      <translation>Name:</translation>
    </message>
    <message>
      <source>Import a preset of a sieve</source>
      <translation>Eine Siebvorgabe importieren</translation>
    </message>
    <message>
      <source>Export the preset</source>
      <translation>Die Vorgabe exportieren</translation>
    </message>
    <message>
      <source>Picture and mask side by side</source>
      <translation>Bild und Maske nebeneinander</translation>
    </message>
    <message>
      <source>Mask small in a corner</source>
      <translation>Maske klein in einer Ecke</translation>
    </message>
    <message>
      <source>One view</source>
      <translation>Eine Ansicht</translation>
    </message>
    <message>
      <source>Copy details</source>
      <translation>Einzelheiten kopieren</translation>
    </message>
    <message>
      <source>Keys and gestures</source>
      <translation>Tasten und Gesten</translation>
    </message>
    <message>
      <source>Search</source>
      <translation>Suchen</translation>
    </message>
    <message>
      <source>Where</source>
      <translation>Wo</translation>
    </message>
    <message>
      <source>Key or gesture</source>
      <translation>Taste oder Geste</translation>
    </message>
    <message>
      <source>What it does</source>
      <translation>Was sie tut</translation>
    </message>
    <message>
      <source>Dark</source>
      <translation>Dunkel</translation>
    </message>
    <message>
      <source>Light</source>
      <translation>Hell</translation>
    </message>
    <message>
      <source>High contrast</source>
      <translation>Hoher Kontrast</translation>
    </message>
    <message>
      <source>Preferences</source>
      <translation>Einstellungen</translation>
    </message>
    <message>
      <source>Surround</source>
      <translation>Umgebung</translation>
    </message>
    <message>
      <source>Arrangement</source>
      <translation>Anordnung</translation>
    </message>
    <message>
      <source>Theme</source>
      <translation>Erscheinung</translation>
    </message>
    <message>
      <source>As the system</source>
      <translation>Wie das System</translation>
    </message>
    <message>
      <source>Language</source>
      <translation>Sprache</translation>
    </message>
    <message>
      <source>It shows at the next start: restart now</source>
      <translation>Sie zeigt sich beim nächsten Start: jetzt neu starten</translation>
    </message>
    <message>
      <source>Picture and mask</source>
      <translation>Bild und Maske</translation>
    </message>
    <message>
      <source>Choose…</source>
      <translation>Wählen …</translation>
    </message>
    <message>
      <source>Automatic</source>
      <translation>Automatisch</translation>
    </message>
    <message>
      <source>A colour far from what the veil covers</source>
      <translation>Eine Farbe weit entfernt von dem, was der Schleier bedeckt</translation>
    </message>
    <message>
      <source>Veil colour</source>
      <translation>Schleierfarbe</translation>
    </message>
    <message>
      <source>Listen to control surfaces (OSC, this machine only)</source>
      <translation>Auf Bedienpulte hören (OSC, nur dieser Rechner)</translation>
    </message>
    <message>
      <source>Chosen…</source>
      <translation>Gewählt …</translation>
    </message>
    <message>
      <source>never saved</source>
      <translation>nie gesichert</translation>
    </message>
    <message>
      <source>Unsaved work</source>
      <translation>Ungesicherte Arbeit</translation>
    </message>
    <message>
      <source>The program ended before this work was saved. What you leave here stays on the menu File &gt; Unsaved work…</source>
      <translation>Das Programm endete, bevor diese Arbeit gesichert war. Was hier bleibt, steht weiter im Menü Datei &gt; Ungesicherte Arbeit …</translation>
    </message>
    <message>
      <source>Later</source>
      <translation>Später</translation>
    </message>
    <message>
      <source>Restore the ticked ones ({count})</source>
      <translation>Angehakte wiederherstellen ({count})</translation>
    </message>
    <message>
      <source>Discard the ticked ones…</source>
      <translation>Angehakte verwerfen …</translation>
    </message>
    <message>
      <source>Discard {count} pieces of unsaved work? They cannot be brought back.</source>
      <translation>{count} ungesicherte Arbeiten verwerfen? Sie lassen sich nicht zurückholen.</translation>
    </message>
  </context>
  <context>
    <name>export</name>
    <message>
      <source>{picture} needs more memory than there is: use fewer jobs.</source>
      <translation>{picture} braucht mehr Speicher, als da ist: Bitte weniger zugleich laufen lassen.</translation>
    </message>
    <message>
      <source>{picture} could not be worked on ({name}: {error}): check the file.</source>
      <translation>{picture} ließ sich nicht bearbeiten ({name}: {error}): Bitte die Datei prüfen.</translation>
    </message>
    <message>
      <source>The folder {path} could not be read ({strerror}): check its permissions.</source>
      <translation>Der Ordner {path} konnte nicht gelesen werden ({strerror}): Bitte die Zugriffsrechte prüfen.</translation>
    </message>
    <message>
      <source>The folder {folder} could not be made ({strerror}): choose another one.</source>
      <translation>Der Ordner {folder} konnte nicht angelegt werden ({strerror}): Bitte einen anderen wählen.</translation>
    </message>
    <message>
      <source>{folder} holds the pictures themselves: choose another folder, so that none is written over.</source>
      <translation>{folder} enthält die Bilder selbst: Bitte einen anderen Ordner wählen, damit keines überschrieben wird.</translation>
    </message>
    <message>
      <source>{name} masks nothing</source>
      <translation>{name} maskiert nichts</translation>
    </message>
    <message>
      <source>{name} covers {share:.1f} %, the others about {middle:.1f} %</source>
      <translation>{name} bedeckt {share:.1f} %, die anderen etwa {middle:.1f} %</translation>
    </message>
    <message>
      <source>{name} was picked on a picture of other things</source>
      <translation>{name} wurde auf einem Bild von anderem gewählt</translation>
    </message>
    <message>
      <source>{red:.2f} {green:.2f} {blue:.2f}, {sure:.0f} % sure</source>
      <translation>{red:.2f} {green:.2f} {blue:.2f}, zu {sure:.0f} % sicher</translation>
    </message>
    <message>
      <source>light of {name}</source>
      <translation>Licht von {name}</translation>
    </message>
    <message>
      <source>coverage of {name}</source>
      <translation>Deckung von {name}</translation>
    </message>
    <message>
      <source>Frames {first} to {end} cannot be rendered: {path} has frames 0 to {last}.</source>
      <translation>Die Bilder {first} bis {end} lassen sich nicht rendern: {path} hat die Bilder 0 bis {last}.</translation>
    </message>
    <message>
      <source>One of the processes was ended from outside: start again, it goes on where it stopped.</source>
      <translation>Einer der Prozesse wurde von außen beendet: Bitte neu beginnen, es geht weiter, wo es aufhörte.</translation>
    </message>
    <message>
      <source>Working on a cluster needs the extra «farm»: install it with pip install 'amber-sieve[farm]'.</source>
      <translation>Für die Arbeit auf einem Cluster ist das Extra «farm» nötig: mit pip install 'amber-sieve[farm]' installieren.</translation>
    </message>
    <message>
      <source>The scheduler {scheduler} cannot be reached with the certificate of this machine: check Dask's settings.</source>
      <translation>Der Scheduler {scheduler} ist mit dem Zertifikat dieses Rechners nicht erreichbar: die Einstellungen von Dask prüfen.</translation>
    </message>
    <message>
      <source>The scheduler {scheduler} cannot be reached: check its address, as in tcp://name:8786.</source>
      <translation>Der Verteiler {scheduler} ist nicht erreichbar: Bitte die Adresse prüfen, wie in tcp://name:8786.</translation>
    </message>
    <message>
      <source>A worker of {scheduler} has no Amber Sieve ({answer}): install amber-sieve[farm] where workers run.</source>
      <translation>Ein Helfer von {scheduler} hat kein Amber Sieve ({answer}): Bitte amber-sieve[farm] dort installieren, wo Helfer laufen.</translation>
    </message>
    <message>
      <source>The scheduler {scheduler} has let go of the work: start again, it goes on where it stopped.</source>
      <translation>Der Verteiler {scheduler} hat die Arbeit losgelassen: Bitte neu beginnen, es geht weiter, wo es aufhörte.</translation>
    </message>
    <message>
      <source>A piece of the work has ended several workers: give them more memory, or leave that file out.</source>
      <translation>Ein Stück der Arbeit hat mehrere Helfer beendet: Bitte ihnen mehr Speicher geben oder diese Datei weglassen.</translation>
    </message>
    <message>
      <source>For the web (JPEG, sRGB, half size)</source>
      <translation>Für das Web (JPEG, sRGB, halbe Größe)</translation>
    </message>
    <message>
      <source>For print (TIFF, 16 bit, opRGB)</source>
      <translation>Für den Druck (TIFF, 16 Bit, opRGB)</translation>
    </message>
    <message>
      <source>Cut-out (PNG)</source>
      <translation>Freisteller (PNG)</translation>
    </message>
    <message>
      <source>All masks (OpenEXR)</source>
      <translation>Alle Masken (OpenEXR)</translation>
    </message>
    <message>
      <source>a preset of an export</source>
      <translation>eine Exportvorgabe</translation>
    </message>
    <message>
      <source>{path} is not a preset of an export ({complaint}): choose another file.</source>
      <translation>{path} ist keine Exportvorgabe ({complaint}): Bitte eine andere Datei wählen.</translation>
    </message>
    <message>
      <source>about {megabytes}</source>
      <translation>etwa {megabytes}</translation>
    </message>
    <message>
      <source>at most {megabytes}</source>
      <translation>höchstens {megabytes}</translation>
    </message>
    <message>
      <source>{size:.1f} MB</source>
      <translation>{size:.1f} MB</translation>
    </message>
    <message>
      <source>{size:.0f} MB</source>
      <translation>{size:.0f} MB</translation>
    </message>
    <message>
      <source>A name has no slash in it: choose the folder for itself, and write the name alone.</source>
      <translation>Ein Name enthält keinen Schrägstrich: Bitte den Ordner für sich wählen und den Namen allein schreiben.</translation>
    </message>
    <message>
      <source>{{{unknown}}} means nothing in a name: use {known}.</source>
      <translation>{{{unknown}}} bedeutet in einem Namen nichts: Bitte {known} verwenden.</translation>
    </message>
    <message>
      <source>Nothing is left of the name: write one, or a pattern such as {name}-{sieve}.</source>
      <translation>Vom Namen bleibt nichts übrig: Bitte einen schreiben oder ein Muster wie {name}-{sieve}.</translation>
    </message>
    <message>
      <source>{size} x {down} pixels are more than can be written: ask for less than {most} on a side.</source>
      <translation>{size} x {down} Pixel sind mehr, als sich schreiben lässt: Bitte weniger als {most} je Seite verlangen.</translation>
    </message>
    <message>
      <source>{target} is what is being read: choose another name, or say --overwrite in a terminal.</source>
      <translation>{target} wird gerade gelesen: Bitte einen anderen Namen wählen oder im Terminal --overwrite angeben.</translation>
    </message>
  </context>
  <context>
    <name>files</name>
    <message>
      <source>The name {shown} holds characters that are not UTF-8: rename the file.</source>
      <translation>Der Name {shown} enthält Zeichen, die kein UTF-8 sind: Bitte die Datei umbenennen.</translation>
    </message>
    <message>
      <source>{path} does not exist: check the name.</source>
      <translation>{path} gibt es nicht: Bitte den Namen prüfen.</translation>
    </message>
    <message>
      <source>{path} could not be read ({strerror}): check the name and its permissions.</source>
      <translation>{path} konnte nicht gelesen werden ({strerror}): Bitte den Namen und die Zugriffsrechte prüfen.</translation>
    </message>
    <message>
      <source>{path} is a folder: give the name of a file.</source>
      <translation>{path} ist ein Ordner: Bitte den Namen einer Datei angeben.</translation>
    </message>
    <message>
      <source>{path} is a pipe or a device: copy what it holds into a file and open that.</source>
      <translation>{path} ist eine Pipe oder ein Gerät: Bitte den Inhalt in eine Datei kopieren und diese öffnen.</translation>
    </message>
    <message>
      <source>{path} may not be read: check its permissions.</source>
      <translation>{path} darf nicht gelesen werden: Bitte die Zugriffsrechte prüfen.</translation>
    </message>
    <message>
      <source>{name} was damaged and is passed over; it lies beside as {name2}.</source>
      <translation>{name} war beschädigt und wird übergangen; es liegt daneben als {name2}.</translation>
    </message>
    <message>
      <source>{shown} cannot be the name of a file ({why}): choose another.</source>
      <translation>{shown} kann nicht der Name einer Datei sein ({why}): Bitte einen anderen wählen.</translation>
    </message>
    <message>
      <source>not UTF-8</source>
      <translation>kein UTF-8</translation>
    </message>
    <message>
      <source>{path} is a folder: give the name of a file to write.</source>
      <translation>{path} ist ein Ordner: Bitte den Namen einer Datei angeben, die geschrieben werden soll.</translation>
    </message>
    <message>
      <source>{path} is a pipe or a device: give the name of a file to write.</source>
      <translation>{path} ist eine Pipe oder ein Gerät: Bitte den Namen einer Datei angeben, die geschrieben werden soll.</translation>
    </message>
    <message>
      <source>The folder {parent} does not exist: make it, or choose another place.</source>
      <translation>Den Ordner {parent} gibt es nicht: Bitte anlegen oder einen anderen Ort wählen.</translation>
    </message>
    <message>
      <source>{path} is write-protected: choose another name, or take the protection off.</source>
      <translation>{path} ist schreibgeschützt: Bitte einen anderen Namen wählen oder den Schutz aufheben.</translation>
    </message>
    <message>
      <source>{path} could not be written ({why}): choose another place or free some space.</source>
      <translation>{path} konnte nicht geschrieben werden ({why}): Bitte einen anderen Ort wählen oder Platz schaffen.</translation>
    </message>
    <message>
      <source>The folder {folder} for {what} could not be made ({strerror}): check its permissions.</source>
      <translation>Der Ordner {folder} für {what} konnte nicht angelegt werden ({strerror}): Bitte die Zugriffsrechte prüfen.</translation>
    </message>
    <message>
      <source>{path} could not be written ({strerror}): choose another place or free some space.</source>
      <translation>{path} konnte nicht geschrieben werden ({strerror}): Bitte einen anderen Ort wählen oder Platz schaffen.</translation>
    </message>
  </context>
  <context>
    <name>footage</name>
    <message>
      <source>{path} cannot be read with the {kind} «{word}»: choose one of {known}.</source>
      <translation>{path} lässt sich nicht mit {kind} «{word}» lesen: Bitte einen Wert von {known} wählen.</translation>
    </message>
    <message>
      <source>{path} is empty (0 bytes): restore it from where it came from.</source>
      <translation>{path} ist leer (0 Bytes): Bitte von dort wiederherstellen, woher es kam.</translation>
    </message>
    <message>
      <source>{path} is not a readable clip: it is damaged or holds no pictures.</source>
      <translation>{path} ist kein lesbarer Clip: Er ist beschädigt oder enthält keine Bilder.</translation>
    </message>
    <message>
      <source>{path} cannot be opened: finding its frames does not end. Restore it, or write it again.</source>
      <translation>{path} lässt sich nicht öffnen: die Suche nach seinen Bildern nimmt kein Ende. Wiederherstellen oder neu schreiben.</translation>
    </message>
    <message>
      <source>{path} holds no frames: it is cut short. Restore it from where it came from.</source>
      <translation>{path} enthält keine Bilder: Er ist abgeschnitten. Bitte von dort wiederherstellen, woher er kam.</translation>
    </message>
    <message>
      <source>{path} is not a readable clip: it does not say how large its pictures are.</source>
      <translation>{path} ist kein lesbarer Clip: Er sagt nicht, wie groß seine Bilder sind.</translation>
    </message>
    <message>
      <source>{path} is {width} x {height} pixels: clips of up to {most} on a side are read. Make it smaller.</source>
      <translation>{path} hat {width} x {height} Pixel: Clips werden bis {most} je Seite gelesen. Bitte verkleinern.</translation>
    </message>
    <message>
      <source>not said (read as {matrix})</source>
      <translation>nicht angegeben (gelesen als {matrix})</translation>
    </message>
    <message>
      <source>not said (read as limited)</source>
      <translation>nicht angegeben (gelesen als begrenzt)</translation>
    </message>
    <message>
      <source>not said (read as sRGB)</source>
      <translation>nicht angegeben (gelesen als sRGB)</translation>
    </message>
    <message>
      <source>not said (read as BT.709)</source>
      <translation>nicht angegeben (gelesen als BT.709)</translation>
    </message>
    <message>
      <source>{path} holds {count} frames, none of which can be decoded: restore the clip.</source>
      <translation>{path} enthält {count} Bilder, von denen sich keines dekodieren lässt: Bitte den Clip wiederherstellen.</translation>
    </message>
    <message>
      <source>{name} says a rate that no clip has: it is played and written at {rate} frames a second.</source>
      <translation>{name} nennt eine Rate, die kein Clip hat: Er wird mit {rate} Bildern je Sekunde abgespielt und geschrieben.</translation>
    </message>
    <message>
      <source>{name} is interlaced: File &gt; Input settings… deinterlaces it.</source>
      <translation>{name} hat Halbbilder: Datei &gt; Eingabe … setzt sie zusammen.</translation>
    </message>
    <message>
      <source> or </source>
      <translation> oder </translation>
    </message>
    <message>
      <source>{name} is partly transparent: export it as {codecs} to keep that. Other codecs hold no alpha.</source>
      <translation>{name} ist teilweise durchsichtig: als {codecs} exportiert bleibt es so. Andere Codecs haben kein Alpha.</translation>
    </message>
    <message>
      <source>{name} ends early: it holds {held} of {promised} frames. Restore it to have the rest.</source>
      <translation>{name} endet zu früh: Er enthält {held} von {promised} Bildern. Bitte wiederherstellen, um den Rest zu haben.</translation>
    </message>
    <message>
      <source>{path} has frames 0 to {count}; there is no frame {number}.</source>
      <translation>{path} hat die Bilder 0 bis {count}; ein Bild {number} gibt es nicht.</translation>
    </message>
    <message>
      <source>{path} has been closed: open it again.</source>
      <translation>{path} wurde geschlossen: Bitte neu öffnen.</translation>
    </message>
    <message>
      <source>Frame {number} of {path} is damaged: leave it out of the range, or restore the clip.</source>
      <translation>Bild {number} von {path} ist beschädigt: Bitte aus dem Bereich weglassen oder den Clip wiederherstellen.</translation>
    </message>
    <message>
      <source>Frame {number} of {path} cannot be deinterlaced: read the clip as it is.</source>
      <translation>Bild {number} von {path} lässt sich nicht deinterlacen: Bitte den Clip lesen, wie er ist.</translation>
    </message>
    <message>
      <source>The pieces of {name} could not be joined ({strerror}): render it in one go.</source>
      <translation>Die Stücke von {name} ließen sich nicht zusammenfügen ({strerror}): Bitte in einem Zug rendern.</translation>
    </message>
    <message>
      <source>The folder {path} could not be read ({strerror}): check its permissions.</source>
      <translation>Der Ordner {path} konnte nicht gelesen werden ({strerror}): Bitte die Zugriffsrechte prüfen.</translation>
    </message>
    <message>
      <source>{path} holds more than one sequence: name the one to open, for example {example}.</source>
      <translation>{path} enthält mehr als eine Sequenz: Bitte die gewünschte nennen, zum Beispiel {example}.</translation>
    </message>
    <message>
      <source>No numbered pictures match {path}: check the name, for example shot.####.exr.</source>
      <translation>Keine nummerierten Bilder passen auf {path}: Bitte den Namen prüfen, zum Beispiel shot.####.exr.</translation>
    </message>
    <message>
      <source>{name} lacks {count} of its pictures ({shown}): the others are shown one after another.</source>
      <translation>{name} fehlen {count} Bilder ({shown}): Die anderen werden nacheinander gezeigt.</translation>
    </message>
    <message>
      <source>{files} is {size} x {down}, the sequence {width} x {height}: take it out of the sequence.</source>
      <translation>{files} hat {size} x {down}, die Sequenz {width} x {height}: Bitte aus der Sequenz nehmen.</translation>
    </message>
    <message>
      <source>The sound of {path} cannot be read any more: bring the clip back, or export without sound.</source>
      <translation>Der Ton von {path} lässt sich nicht mehr lesen: den Clip zurückholen oder ohne Ton exportieren.</translation>
    </message>
    <message>
      <source>{codec} holds no alpha: write {codecs}.</source>
      <translation>{codec} enthält kein Alpha: Bitte {codecs} schreiben.</translation>
    </message>
    <message>
      <source>{codec} needs an even width and height, this is {width} x {height}: write ProRes 422 HQ (.mov) or single pictures.</source>
      <translation>{codec} braucht gerade Breite und Höhe, dies sind {width} x {height}: Bitte ProRes 422 HQ (.mov) oder einzelne Bilder schreiben.</translation>
    </message>
    <message>
      <source>{codec} does not take pictures of {width} x {height}: choose another codec.</source>
      <translation>{codec} nimmt keine Bilder mit {width} x {height}: Bitte einen anderen Codec wählen.</translation>
    </message>
    <message>
      <source>These frames cannot be written into {kind} ({strerror}): choose another kind of file.</source>
      <translation>Diese Bilder lassen sich nicht in {kind} schreiben ({strerror}): Bitte eine andere Dateiart wählen.</translation>
    </message>
  </context>
  <context>
    <name>keys</name>
    <message>
      <source>Picture</source>
      <translation>Bild</translation>
    </message>
    <message>
      <source>Click</source>
      <translation>Klick</translation>
    </message>
    <message>
      <source>New pick: this colour alone; off the page Pick, the sieve that lies there</source>
      <translation>Neue Auswahl: nur diese Farbe; auf anderen Seiten das Sieb, das dort liegt</translation>
    </message>
    <message>
      <source>Click again on the same place</source>
      <translation>Noch ein Klick auf dieselbe Stelle</translation>
    </message>
    <message>
      <source>The next larger size at which the mask holds still</source>
      <translation>Die nächste Größe, bei der die Maske ruhig bleibt</translation>
    </message>
    <message>
      <source>Shift+click</source>
      <translation>Umschalt+Klick</translation>
    </message>
    <message>
      <source>Keep this colour too</source>
      <translation>Auch diese Farbe behalten</translation>
    </message>
    <message>
      <source>Ctrl+click</source>
      <translation>Strg+Klick</translation>
    </message>
    <message>
      <source>Drop this colour</source>
      <translation>Diese Farbe weglassen</translation>
    </message>
    <message>
      <source>Press and drag outwards</source>
      <translation>Drücken und nach außen ziehen</translation>
    </message>
    <message>
      <source>The tolerance of the sample just taken</source>
      <translation>Die Toleranz der eben genommenen Probe</translation>
    </message>
    <message>
      <source>Wheel</source>
      <translation>Rad</translation>
    </message>
    <message>
      <source>Zoom at the pointer</source>
      <translation>Am Zeiger vergrößern</translation>
    </message>
    <message>
      <source>Middle button</source>
      <translation>Mittlere Taste</translation>
    </message>
    <message>
      <source>Pan</source>
      <translation>Verschieben</translation>
    </message>
    <message>
      <source>Arrow keys</source>
      <translation>Pfeiltasten</translation>
    </message>
    <message>
      <source>+ and -</source>
      <translation>+ und -</translation>
    </message>
    <message>
      <source>Zoom</source>
      <translation>Vergrößern</translation>
    </message>
    <message>
      <source>Enter</source>
      <translation>Enter</translation>
    </message>
    <message>
      <source>Click in the middle of the view</source>
      <translation>Klick in die Mitte der Ansicht</translation>
    </message>
    <message>
      <source>X, then arrow keys</source>
      <translation>X, dann Pfeiltasten</translation>
    </message>
    <message>
      <source>A cursor on the picture: Enter clicks, Space presses and lets go, Escape ends it</source>
      <translation>Ein Zeiger auf dem Bild: Enter klickt, die Leertaste drückt und lässt los, Escape beendet es</translation>
    </message>
    <message>
      <source>1 to 9, 0</source>
      <translation>1 bis 9, 0</translation>
    </message>
    <message>
      <source>Result, Original, Mask, Veil, Isolate, Cut-out, Weak spots, Fringe check, Realism check, Other take under the pointer</source>
      <translation>Ergebnis, Original, Maske, Schleier, Herausstellen, Freisteller, Schwachstellen, Saumprüfung, Echtheitsprüfung, andere Fassung unter dem Zeiger</translation>
    </message>
    <message>
      <source>Hold Q</source>
      <translation>Q halten</translation>
    </message>
    <message>
      <source>What a click where the pointer rests would give; a click takes it</source>
      <translation>Was ein Klick ergäbe, wo der Zeiger ruht; ein Klick nimmt es</translation>
    </message>
    <message>
      <source>Hold O</source>
      <translation>O halten</translation>
    </message>
    <message>
      <source>The picture as it was</source>
      <translation>Das Bild, wie es war</translation>
    </message>
    <message>
      <source>Clip</source>
      <translation>Clip</translation>
    </message>
    <message>
      <source>Space</source>
      <translation>Leertaste</translation>
    </message>
    <message>
      <source>Play or stop</source>
      <translation>Abspielen oder anhalten</translation>
    </message>
    <message>
      <source>In point, out point here; again removes it</source>
      <translation>Anfangspunkt, Endpunkt hier; noch einmal entfernt ihn</translation>
    </message>
    <message>
      <source>The next frame at which the coverage jumps</source>
      <translation>Das nächste Bild, auf dem die Deckung springt</translation>
    </message>
    <message>
      <source>, and .</source>
      <translation>, und .</translation>
    </message>
    <message>
      <source>Previous frame, next frame</source>
      <translation>Voriges Bild, nächstes Bild</translation>
    </message>
    <message>
      <source>Numbers</source>
      <translation>Zahlen</translation>
    </message>
    <message>
      <source>Drag sideways</source>
      <translation>Seitwärts ziehen</translation>
    </message>
    <message>
      <source>Change; Alt for a tenth</source>
      <translation>Ändern; Alt für ein Zehntel</translation>
    </message>
    <message>
      <source>Digits or Enter</source>
      <translation>Ziffern oder Enter</translation>
    </message>
    <message>
      <source>Type</source>
      <translation>Tippen</translation>
    </message>
    <message>
      <source>Nudge; Shift ten times, Alt a tenth</source>
      <translation>Schrittweise; Umschalt zehnfach, Alt ein Zehntel</translation>
    </message>
    <message>
      <source>Double-click or Backspace</source>
      <translation>Doppelklick oder Rücktaste</translation>
    </message>
    <message>
      <source>Reset</source>
      <translation>Zurücksetzen</translation>
    </message>
    <message>
      <source>Found on the picture, where it can be</source>
      <translation>Auf dem Bild finden, wo das geht</translation>
    </message>
    <message>
      <source>Pick</source>
      <translation>Auswahl</translation>
    </message>
    <message>
      <source>The chosen or last sample reaches everywhere, or here only</source>
      <translation>Die gewählte oder letzte Probe reicht überall hin oder nur hier</translation>
    </message>
    <message>
      <source>Drag round a thing, with Outline</source>
      <translation>Mit „Umriss“ um ein Ding ziehen</translation>
    </message>
    <message>
      <source>Samples that hold it, and not what is outside</source>
      <translation>Proben, die es halten und nicht, was außen ist</translation>
    </message>
    <message>
      <source>Delete</source>
      <translation>Entf</translation>
    </message>
    <message>
      <source>Remove the chosen samples</source>
      <translation>Die gewählten Proben entfernen</translation>
    </message>
    <message>
      <source>Rename the chosen sample</source>
      <translation>Die gewählte Probe umbenennen</translation>
    </message>
    <message>
      <source>Bands</source>
      <translation>Bänder</translation>
    </message>
    <message>
      <source>Drag a corner</source>
      <translation>Eine Ecke ziehen</translation>
    </message>
    <message>
      <source>Fade in, full from, full to, fade out</source>
      <translation>Beginn, voll ab, voll bis, Ende</translation>
    </message>
    <message>
      <source>Shift+drag</source>
      <translation>Umschalt+Ziehen</translation>
    </message>
    <message>
      <source>The other side moves the opposite way</source>
      <translation>Die andere Seite bewegt sich entgegengesetzt</translation>
    </message>
    <message>
      <source>Ctrl+drag</source>
      <translation>Strg+Ziehen</translation>
    </message>
    <message>
      <source>Core and falloff of one side move together</source>
      <translation>Kern und Auslauf einer Seite bewegen sich zusammen</translation>
    </message>
    <message>
      <source>Up and Down, Left and Right</source>
      <translation>Auf und Ab, Links und Rechts</translation>
    </message>
    <message>
      <source>Choose a corner, nudge it</source>
      <translation>Eine Ecke wählen, sie schrittweise bewegen</translation>
    </message>
    <message>
      <source>Space, I, Home</source>
      <translation>Leertaste, I, Pos1</translation>
    </message>
    <message>
      <source>On or off, invert, full range</source>
      <translation>Ein oder aus, umkehren, voller Bereich</translation>
    </message>
    <message>
      <source>Colour field</source>
      <translation>Farbfeld</translation>
    </message>
    <message>
      <source>Drag the region</source>
      <translation>Den Bereich ziehen</translation>
    </message>
    <message>
      <source>Its middle, its edges or its falloff</source>
      <translation>Seine Mitte, seine Ränder oder seinen Auslauf</translation>
    </message>
    <message>
      <source>Press beside it</source>
      <translation>Daneben drücken</translation>
    </message>
    <message>
      <source>Show where that colour is in the picture</source>
      <translation>Zeigen, wo diese Farbe im Bild ist</translation>
    </message>
    <message>
      <source>Double-click</source>
      <translation>Doppelklick</translation>
    </message>
    <message>
      <source>Show it large in the second pane</source>
      <translation>Groß in der zweiten Ansicht zeigen</translation>
    </message>
    <message>
      <source>Adjust</source>
      <translation>Anpassen</translation>
    </message>
    <message>
      <source>Click a heading</source>
      <translation>Klick auf eine Überschrift</translation>
    </message>
    <message>
      <source>Open or close a block</source>
      <translation>Einen Block öffnen oder schließen</translation>
    </message>
    <message>
      <source>Escape</source>
      <translation>Escape</translation>
    </message>
    <message>
      <source>Stop picking a colour in the picture</source>
      <translation>Das Wählen einer Farbe im Bild beenden</translation>
    </message>
    <message>
      <source>Curves</source>
      <translation>Kurven</translation>
    </message>
    <message>
      <source>Press, drag</source>
      <translation>Drücken, ziehen</translation>
    </message>
    <message>
      <source>Put a point on the curve and move it</source>
      <translation>Einen Punkt auf die Kurve setzen und bewegen</translation>
    </message>
    <message>
      <source>Right-click or double-click</source>
      <translation>Rechtsklick oder Doppelklick</translation>
    </message>
    <message>
      <source>Remove a point</source>
      <translation>Einen Punkt entfernen</translation>
    </message>
    <message>
      <source>Left and Right, Up and Down</source>
      <translation>Links und Rechts, Auf und Ab</translation>
    </message>
    <message>
      <source>Choose a point, move it; Ctrl with Left and Right sideways</source>
      <translation>Einen Punkt wählen, ihn bewegen; Strg mit Links und Rechts seitwärts</translation>
    </message>
    <message>
      <source>Insert, Delete, Home</source>
      <translation>Einfg, Entf, Pos1</translation>
    </message>
    <message>
      <source>Add a point where most room is, remove it, straighten</source>
      <translation>Einen Punkt setzen, wo am meisten Platz ist, ihn entfernen, die Kurve gerade ziehen</translation>
    </message>
    <message>
      <source>Balance</source>
      <translation>Balance</translation>
    </message>
    <message>
      <source>Drag a handle</source>
      <translation>Einen Griff ziehen</translation>
    </message>
    <message>
      <source>Dark, grey or light: shadows, midtones or highlights towards a hue</source>
      <translation>Dunkel, grau oder hell: Schatten, Mitteltöne oder Lichter zu einem Farbton hin</translation>
    </message>
    <message>
      <source>Up and Down</source>
      <translation>Auf und Ab</translation>
    </message>
    <message>
      <source>Choose a handle</source>
      <translation>Einen Griff wählen</translation>
    </message>
    <message>
      <source>Left and Right, + and -, Home</source>
      <translation>Links und Rechts, + und -, Pos1</translation>
    </message>
    <message>
      <source>Turn it, move it out and in, put it back</source>
      <translation>Ihn drehen, hinaus- und hereinbewegen, zurücksetzen</translation>
    </message>
    <message>
      <source>Areas</source>
      <translation>Flächen</translation>
    </message>
    <message>
      <source>Enter or double-click</source>
      <translation>Enter oder Doppelklick</translation>
    </message>
    <message>
      <source>Close an outline</source>
      <translation>Einen Umriss schließen</translation>
    </message>
    <message>
      <source>Backspace</source>
      <translation>Rücktaste</translation>
    </message>
    <message>
      <source>Remove the last corner</source>
      <translation>Die letzte Ecke entfernen</translation>
    </message>
    <message>
      <source>Remove the chosen area</source>
      <translation>Die gewählte Fläche entfernen</translation>
    </message>
    <message>
      <source>Shift, Ctrl while dragging</source>
      <translation>Umschalt, Strg beim Ziehen</translation>
    </message>
    <message>
      <source>Scale about the middle, skew</source>
      <translation>Um die Mitte skalieren, scheren</translation>
    </message>
    <message>
      <source>Brush</source>
      <translation>Pinsel</translation>
    </message>
    <message>
      <source>Erase</source>
      <translation>Löschen</translation>
    </message>
    <message>
      <source>A straight line from the last stroke</source>
      <translation>Eine gerade Linie vom letzten Strich aus</translation>
    </message>
    <message>
      <source>[ and ], or right button</source>
      <translation>[ und ] oder rechte Taste</translation>
    </message>
    <message>
      <source>Size</source>
      <translation>Größe</translation>
    </message>
  </context>
  <context>
    <name>live</name>
    <message>
      <source>Nothing added: no pixel is near enough.</source>
      <translation>Nichts dazu: Kein Pixel ist nah genug.</translation>
    </message>
    <message>
      <source>Nothing removed: all of it lies nearer to a keep sample; try here only (R).</source>
      <translation>Nichts entfernt: Alles davon liegt näher an einer Behalten-Probe; „Nur hier“ versuchen (R).</translation>
    </message>
    <message>
      <source>Nothing added: this place is held already.</source>
      <translation>Nichts dazu: Diese Stelle ist schon in der Maske.</translation>
    </message>
    <message>
      <source>Follow keeps it in from now on.</source>
      <translation>„Folgen“ lässt sie von jetzt an darin.</translation>
    </message>
    <message>
      <source>Nothing removed: no sample holds this place.</source>
      <translation>Nichts entfernt: Keine Probe hält diese Stelle.</translation>
    </message>
    <message>
      <source>Follow leaves it out from now on.</source>
      <translation>„Folgen“ lässt sie von jetzt an draußen.</translation>
    </message>
    <message>
      <source>The outline holds nothing to tell from the rest: draw it round the whole thing, with some room.</source>
      <translation>Der Umriss enthält nichts, was sich vom Rest unterscheidet: Bitte um das ganze Ding ziehen, mit etwas Platz.</translation>
    </message>
    <message>
      <source>What is inside the outline looks like what is outside: click the thing instead.</source>
      <translation>Was innerhalb des Umrisses ist, sieht aus wie das Äußere: Bitte stattdessen das Ding anklicken.</translation>
    </message>
    <message>
      <source>No samples make a mask of what is inside the outline: click the thing instead.</source>
      <translation>Keine Proben ergeben eine Maske dessen, was im Umriss ist: Bitte stattdessen das Ding anklicken.</translation>
    </message>
    <message>
      <source>No sample can be taken there: {error}.</source>
      <translation>Dort lässt sich keine Probe nehmen: {error}.</translation>
    </message>
    <message>
      <source>There is nothing to fit to: take a keep sample by surface first.</source>
      <translation>Es gibt nichts, woran sich etwas anpassen ließe: zuerst eine Behalten-Probe nach Oberfläche nehmen.</translation>
    </message>
    <message>
      <source>There is nothing to set the bands from: take a keep sample first.</source>
      <translation>Es gibt nichts, wonach sich die Bänder setzen ließen: zuerst eine Behalten-Probe nehmen.</translation>
    </message>
    <message>
      <source>A gradient has no inside that could be tracked: choose a shape or a brush stroke.</source>
      <translation>Ein Verlauf hat kein Inneres, das sich verfolgen ließe: Bitte eine Form oder einen Pinselstrich wählen.</translation>
    </message>
    <message>
      <source>, {mean:.1f} % without Steady</source>
      <translation>, {mean:.1f} % ohne Beruhigen</translation>
    </message>
    <message>
      <source>flicker {mean_flicker:.1f} % a frame{before}</source>
      <translation>Flimmern {mean_flicker:.1f} % je Bild{before}</translation>
    </message>
  </context>
  <context>
    <name>media</name>
    <message>
      <source>Pictures cannot be written as «{suffix}»: end the name in {endings}.</source>
      <translation>Bilder lassen sich nicht als «{suffix}» schreiben: Bitte den Namen auf {endings} enden lassen.</translation>
    </message>
    <message>
      <source>no ending</source>
      <translation>ohne Endung</translation>
    </message>
    <message>
      <source>Masks cannot be written as «{suffix}»: end the name in {endings}.</source>
      <translation>Masken lassen sich nicht als «{suffix}» schreiben: Bitte den Namen auf {endings} enden lassen.</translation>
    </message>
    <message>
      <source>{wanted} cannot be written as «{suffix}»: end the name in {holds}.</source>
      <translation>{wanted} lässt sich nicht als «{suffix}» schreiben: Bitte den Namen auf {holds} enden lassen.</translation>
    </message>
    <message>
      <source>A clip</source>
      <translation>Ein Clip</translation>
    </message>
    <message>
      <source>{path} is {width} x {height} pixels, more than {most} million: cut it into parts.</source>
      <translation>{path} hat {width} x {height} Pixel, mehr als {most} Millionen: Bitte in Teile schneiden.</translation>
    </message>
    <message>
      <source>{path} is {width} x {height} pixels and takes {needs:.1f} GB to open, {free:.1f} GB are free: close other programs, or make it smaller.</source>
      <translation>{path} hat {width} x {height} Pixel und braucht {needs:.1f} GB zum Öffnen, {free:.1f} GB sind frei: Bitte andere Programme schließen oder das Bild verkleinern.</translation>
    </message>
    <message>
      <source>very large pictures</source>
      <translation>sehr große Bilder</translation>
    </message>
    <message>
      <source>{path} needs {needs:.1f} GB on the disk of {folder} while it is open ({why}): free some space there.</source>
      <translation>{path} braucht {needs:.1f} GB auf dem Datenträger von {folder}, solange es offen ist ({why}): Bitte dort Platz schaffen.</translation>
    </message>
  </context>
  <context>
    <name>model</name>
    <message>
      <source>On</source>
      <translation>Ein</translation>
    </message>
    <message>
      <source>Off: the block is seen as if it changed nothing</source>
      <translation>Aus: Der Block wird gezeigt, als änderte er nichts</translation>
    </message>
    <message>
      <source>Feather</source>
      <translation>Weich</translation>
    </message>
    <message>
      <source>Softens the outline of the area over this distance (a standard deviation); at 0 it is sharp.</source>
      <translation>Macht den Umriss der Fläche über diese Strecke weich (eine Standardabweichung); bei 0 ist er scharf.</translation>
    </message>
    <message>
      <source>Balance</source>
      <translation>Balance</translation>
    </message>
    <message>
      <source>Shadows hue</source>
      <translation>Farbton der Schatten</translation>
    </message>
    <message>
      <source>The hue that shadows are drawn towards, as far as their colour says.</source>
      <translation>Der Farbton, zu dem die Schatten gezogen werden, so weit ihre Farbe es sagt.</translation>
    </message>
    <message>
      <source>Shadows colour</source>
      <translation>Farbe der Schatten</translation>
    </message>
    <message>
      <source>At 0 shadows keep their colour; at 100 % they are drawn to the hue most.</source>
      <translation>Bei 0 behalten die Schatten ihre Farbe; bei 100 % werden sie am stärksten zum Farbton gezogen.</translation>
    </message>
    <message>
      <source>Shadows lightness</source>
      <translation>Helligkeit der Schatten</translation>
    </message>
    <message>
      <source>Above 0 shadows become lighter, below 0 darker.</source>
      <translation>Über 0 werden die Schatten heller, darunter dunkler.</translation>
    </message>
    <message>
      <source>Midtones hue</source>
      <translation>Farbton der Mitteltöne</translation>
    </message>
    <message>
      <source>The hue that midtones are drawn towards, as far as their colour says.</source>
      <translation>Der Farbton, zu dem die Mitteltöne gezogen werden, so weit ihre Farbe es sagt.</translation>
    </message>
    <message>
      <source>Midtones colour</source>
      <translation>Farbe der Mitteltöne</translation>
    </message>
    <message>
      <source>At 0 midtones keep their colour; at 100 % they are drawn to the hue most.</source>
      <translation>Bei 0 behalten die Mitteltöne ihre Farbe; bei 100 % werden sie am stärksten zum Farbton gezogen.</translation>
    </message>
    <message>
      <source>Midtones lightness</source>
      <translation>Helligkeit der Mitteltöne</translation>
    </message>
    <message>
      <source>Above 0 midtones become lighter, below 0 darker.</source>
      <translation>Über 0 werden die Mitteltöne heller, darunter dunkler.</translation>
    </message>
    <message>
      <source>Highlights hue</source>
      <translation>Farbton der Lichter</translation>
    </message>
    <message>
      <source>The hue that highlights are drawn towards, as far as their colour says.</source>
      <translation>Der Farbton, zu dem die Lichter gezogen werden, so weit ihre Farbe es sagt.</translation>
    </message>
    <message>
      <source>Highlights colour</source>
      <translation>Farbe der Lichter</translation>
    </message>
    <message>
      <source>At 0 highlights keep their colour; at 100 % they are drawn to the hue most.</source>
      <translation>Bei 0 behalten die Lichter ihre Farbe; bei 100 % werden sie am stärksten zum Farbton gezogen.</translation>
    </message>
    <message>
      <source>Highlights lightness</source>
      <translation>Helligkeit der Lichter</translation>
    </message>
    <message>
      <source>Above 0 highlights become lighter, below 0 darker.</source>
      <translation>Über 0 werden die Lichter heller, darunter dunkler.</translation>
    </message>
    <message>
      <source>Shadows to</source>
      <translation>Schatten bis</translation>
    </message>
    <message>
      <source>The lightness at which shadows become midtones.</source>
      <translation>Die Helligkeit, bei der Schatten zu Mitteltönen werden.</translation>
    </message>
    <message>
      <source>Highlights from</source>
      <translation>Lichter ab</translation>
    </message>
    <message>
      <source>The lightness at which midtones become highlights.</source>
      <translation>Die Helligkeit, bei der Mitteltöne zu Lichtern werden.</translation>
    </message>
    <message>
      <source>Falloff curve</source>
      <translation>Auslaufkurve</translation>
    </message>
    <message>
      <source>Below 0 the mask falls off steeply, above 0 gently.</source>
      <translation>Unter 0 läuft die Maske steil aus, darüber sanft.</translation>
    </message>
    <message>
      <source>CDL</source>
      <translation>CDL</translation>
    </message>
    <message>
      <source>Slope red</source>
      <translation>Slope Rot</translation>
    </message>
    <message>
      <source>Multiplies red light: above 1 it gets lighter, below 1 darker.</source>
      <translation>Multipliziert rotes Licht: über 1 wird es heller, darunter dunkler.</translation>
    </message>
    <message>
      <source>Slope green</source>
      <translation>Slope Grün</translation>
    </message>
    <message>
      <source>Multiplies green light: above 1 it gets lighter, below 1 darker.</source>
      <translation>Multipliziert grünes Licht: über 1 wird es heller, darunter dunkler.</translation>
    </message>
    <message>
      <source>Slope blue</source>
      <translation>Slope Blau</translation>
    </message>
    <message>
      <source>Multiplies blue light: above 1 it gets lighter, below 1 darker.</source>
      <translation>Multipliziert blaues Licht: über 1 wird es heller, darunter dunkler.</translation>
    </message>
    <message>
      <source>Offset red</source>
      <translation>Offset Rot</translation>
    </message>
    <message>
      <source>Is added to red light after the slope: above 0 it lifts shadows, below 0 it deepens them.</source>
      <translation>Wird nach dem Slope zu rotem Licht addiert: über 0 hebt es die Schatten, darunter vertieft es sie.</translation>
    </message>
    <message>
      <source>Offset green</source>
      <translation>Offset Grün</translation>
    </message>
    <message>
      <source>Is added to green light after the slope: above 0 it lifts shadows, below 0 it deepens them.</source>
      <translation>Wird nach dem Slope zu grünem Licht addiert: über 0 hebt es die Schatten, darunter vertieft es sie.</translation>
    </message>
    <message>
      <source>Offset blue</source>
      <translation>Offset Blau</translation>
    </message>
    <message>
      <source>Is added to blue light after the slope: above 0 it lifts shadows, below 0 it deepens them.</source>
      <translation>Wird nach dem Slope zu blauem Licht addiert: über 0 hebt es die Schatten, darunter vertieft es sie.</translation>
    </message>
    <message>
      <source>Power red</source>
      <translation>Power Rot</translation>
    </message>
    <message>
      <source>The power red light is raised to after slope and offset: above 1 midtones get darker, below 1 lighter.</source>
      <translation>Die Potenz, in die rotes Licht nach Slope und Offset erhoben wird: über 1 werden Mitteltöne dunkler, darunter heller.</translation>
    </message>
    <message>
      <source>Power green</source>
      <translation>Power Grün</translation>
    </message>
    <message>
      <source>The power green light is raised to after slope and offset: above 1 midtones get darker, below 1 lighter.</source>
      <translation>Die Potenz, in die grünes Licht nach Slope und Offset erhoben wird: über 1 werden Mitteltöne dunkler, darunter heller.</translation>
    </message>
    <message>
      <source>Power blue</source>
      <translation>Power Blau</translation>
    </message>
    <message>
      <source>The power blue light is raised to after slope and offset: above 1 midtones get darker, below 1 lighter.</source>
      <translation>Die Potenz, in die blaues Licht nach Slope und Offset erhoben wird: über 1 werden Mitteltöne dunkler, darunter heller.</translation>
    </message>
    <message>
      <source>CDL saturation</source>
      <translation>CDL-Sättigung</translation>
    </message>
    <message>
      <source>At 0 colours become grey, at 1 they stay, above 1 they get richer.</source>
      <translation>Bei 0 werden Farben grau, bei 1 bleiben sie, über 1 werden sie kräftiger.</translation>
    </message>
    <message>
      <source>Levels and curves</source>
      <translation>Tonwerte und Kurven</translation>
    </message>
    <message>
      <source>Curve</source>
      <translation>Kurve</translation>
    </message>
    <message>
      <source>Curve of luminance; hue and saturation stay</source>
      <translation>Kurve der Luminanz; Farbton und Sättigung bleiben</translation>
    </message>
    <message>
      <source>Red curve</source>
      <translation>Rotkurve</translation>
    </message>
    <message>
      <source>Curve of the red channel</source>
      <translation>Kurve des roten Kanals</translation>
    </message>
    <message>
      <source>Green curve</source>
      <translation>Grünkurve</translation>
    </message>
    <message>
      <source>Curve of the green channel</source>
      <translation>Kurve des grünen Kanals</translation>
    </message>
    <message>
      <source>Blue curve</source>
      <translation>Blaukurve</translation>
    </message>
    <message>
      <source>Curve of the blue channel</source>
      <translation>Kurve des blauen Kanals</translation>
    </message>
    <message>
      <source>Input black</source>
      <translation>Schwarz ein</translation>
    </message>
    <message>
      <source>This level becomes the output black; at 0 nothing changes.</source>
      <translation>Diese Stufe wird zum Schwarz der Ausgabe; bei 0 ändert sich nichts.</translation>
    </message>
    <message>
      <source>Input white</source>
      <translation>Weiß ein</translation>
    </message>
    <message>
      <source>This level becomes the output white; at 255 nothing changes.</source>
      <translation>Diese Stufe wird zum Weiß der Ausgabe; bei 255 ändert sich nichts.</translation>
    </message>
    <message>
      <source>Midtones</source>
      <translation>Mitteltöne</translation>
    </message>
    <message>
      <source>Above 1 the tones between input black and input white get lighter, below 1 darker.</source>
      <translation>Über 1 werden die Töne zwischen Schwarz und Weiß der Eingabe heller, darunter dunkler.</translation>
    </message>
    <message>
      <source>Output black</source>
      <translation>Schwarz aus</translation>
    </message>
    <message>
      <source>The level that input black becomes; above 0 blacks turn grey.</source>
      <translation>Die Stufe, die das Schwarz der Eingabe wird; über 0 wird Schwarz grau.</translation>
    </message>
    <message>
      <source>Output white</source>
      <translation>Weiß aus</translation>
    </message>
    <message>
      <source>The level that input white becomes; below 255 whites turn grey.</source>
      <translation>Die Stufe, die das Weiß der Eingabe wird; unter 255 wird Weiß grau.</translation>
    </message>
    <message>
      <source>Detail</source>
      <translation>Details</translation>
    </message>
    <message>
      <source>Noise reduction</source>
      <translation>Entrauschen</translation>
    </message>
    <message>
      <source>At 100 % noise in lightness and colour is smoothed most; at 0 nothing changes.</source>
      <translation>Bei 100 % wird Rauschen in Helligkeit und Farbe am stärksten geglättet; bei 0 ändert sich nichts.</translation>
    </message>
    <message>
      <source>Blur</source>
      <translation>Weichzeichnen</translation>
    </message>
    <message>
      <source>Softens the picture over this distance (a standard deviation); at 0 nothing changes.</source>
      <translation>Zeichnet das Bild über diese Strecke weich (eine Standardabweichung); bei 0 ändert sich nichts.</translation>
    </message>
    <message>
      <source>Local contrast</source>
      <translation>Lokaler Kontrast</translation>
    </message>
    <message>
      <source>Above 0 things stand out from what surrounds them, below 0 they sink into it, without halos.</source>
      <translation>Über 0 heben sich Dinge von ihrer Umgebung ab, darunter sinken sie hinein, ohne Säume.</translation>
    </message>
    <message>
      <source>Radius</source>
      <translation>Radius</translation>
    </message>
    <message>
      <source>How far local contrast looks: small for texture, large for whole shapes.</source>
      <translation>Wie weit lokaler Kontrast schaut: klein für Struktur, groß für ganze Formen.</translation>
    </message>
    <message>
      <source>Sharpen</source>
      <translation>Schärfen</translation>
    </message>
    <message>
      <source>At 100 % fine detail is emphasised most; at 0 nothing changes.</source>
      <translation>Bei 100 % werden feine Details am stärksten betont; bei 0 ändert sich nichts.</translation>
    </message>
    <message>
      <source>How far sharpening looks: small for fine detail, large for coarse.</source>
      <translation>Wie weit das Schärfen schaut: klein für feine Details, groß für grobe.</translation>
    </message>
    <message>
      <source>Grain</source>
      <translation>Korn</translation>
    </message>
    <message>
      <source>At 100 % film-like grain is strongest; at 0 there is none.</source>
      <translation>Bei 100 % ist filmartiges Korn am stärksten; bei 0 gibt es keines.</translation>
    </message>
    <message>
      <source>Size</source>
      <translation>Größe</translation>
    </message>
    <message>
      <source>How large a grain is.</source>
      <translation>Wie groß ein Korn ist.</translation>
    </message>
    <message>
      <source>Black point</source>
      <translation>Schwarz</translation>
    </message>
    <message>
      <source>Mask values up to this become 0, which cleans a grey background.</source>
      <translation>Maskenwerte bis hierher werden 0; das säubert einen grauen Hintergrund.</translation>
    </message>
    <message>
      <source>White point</source>
      <translation>Weiß</translation>
    </message>
    <message>
      <source>Mask values from this on become 100 %, which closes a grey inside.</source>
      <translation>Maskenwerte ab hier werden 100 %; das schließt ein graues Inneres.</translation>
    </message>
    <message>
      <source>Gamma</source>
      <translation>Gamma</translation>
    </message>
    <message>
      <source>Above 1 partial pixels are masked more, below 1 less.</source>
      <translation>Über 1 werden teilweise maskierte Pixel stärker maskiert, darunter schwächer.</translation>
    </message>
    <message>
      <source>Remove specks up to</source>
      <translation>Flecken entfernen bis</translation>
    </message>
    <message>
      <source>Pieces of at most so many pixels are removed, unless a sample lies in them; at 0 all stay.</source>
      <translation>Stücke von höchstens so vielen Pixeln werden entfernt, wenn keine Probe darin liegt; bei 0 bleiben alle.</translation>
    </message>
    <message>
      <source>Fill holes up to</source>
      <translation>Löcher füllen bis</translation>
    </message>
    <message>
      <source>Holes of at most so many pixels are filled, unless a sample lies in them; at 0 none is.</source>
      <translation>Löcher von höchstens so vielen Pixeln werden gefüllt, wenn keine Probe darin liegt; bei 0 keines.</translation>
    </message>
    <message>
      <source>All holes</source>
      <translation>Alle Löcher</translation>
    </message>
    <message>
      <source>Fill every hole, whatever its size</source>
      <translation>Jedes Loch füllen, gleich wie groß</translation>
    </message>
    <message>
      <source>Grow</source>
      <translation>Wachsen</translation>
    </message>
    <message>
      <source>Above 0 the mask grows by this distance, below 0 it shrinks.</source>
      <translation>Über 0 wächst die Maske um diese Strecke, darunter schrumpft sie.</translation>
    </message>
    <message>
      <source>Softens the finished outline over this distance (a standard deviation), last of all; at 0 it stays as it is.</source>
      <translation>Macht den fertigen Umriss auf diese Strecke (eine Standardabweichung) weich, als Letztes; bei 0 bleibt er, wie er ist.</translation>
    </message>
    <message>
      <source>Feather direction</source>
      <translation>Richtung der weichen Kante</translation>
    </message>
    <message>
      <source>Soften both ways, or only inwards or outwards</source>
      <translation>In beide Richtungen weich, oder nur nach innen oder außen</translation>
    </message>
    <message>
      <source>Smooth</source>
      <translation>Glätten</translation>
    </message>
    <message>
      <source>Rounds a jagged outline over this distance without softening it; at 0 it stays as it is.</source>
      <translation>Rundet einen zackigen Umriss über diese Strecke, ohne ihn weich zu machen; bei 0 bleibt er, wie er ist.</translation>
    </message>
    <message>
      <source>Hard edge</source>
      <translation>Harter Rand</translation>
    </message>
    <message>
      <source>No partial pixel</source>
      <translation>Keine teilweise maskierten Pixel</translation>
    </message>
    <message>
      <source>Follow the edge</source>
      <translation>Kante folgen</translation>
    </message>
    <message>
      <source>Looks this far on both sides of the outline to work out how far each pixel is covered; at 0 the outline stays as it was picked. When it is right, soft edges are grey in the mask and no rim of the old colour stays.</source>
      <translation>Schaut so weit zu beiden Seiten des Umrisses, um herauszufinden, wie weit jedes Pixel bedeckt ist; bei 0 bleibt der Umriss, wie er gewählt wurde. Stimmt es, sind weiche Kanten in der Maske grau, und kein Saum der alten Farbe bleibt.</translation>
    </message>
    <message>
      <source>Colour separation</source>
      <translation>Farbtrennung</translation>
    </message>
    <message>
      <source>At 0 subject and background must differ clearly to be told apart, at 100 % the slightest difference is used. When it is right, the mask is grey along the edge alone.</source>
      <translation>Bei 0 müssen sich Motiv und Hintergrund deutlich unterscheiden, bei 100 % genügt der kleinste Unterschied. Stimmt es, ist die Maske nur entlang der Kante grau.</translation>
    </message>
    <message>
      <source>Hair and fringe</source>
      <translation>Haare und Fransen</translation>
    </message>
    <message>
      <source>Width of the band in which hair, fringe and leaves are worked out pixel by pixel; at 0 it is off. It takes seconds.</source>
      <translation>Breite des Streifens, in dem Haare, Fransen und Blätter Pixel für Pixel ausgerechnet werden; bei 0 ist es aus. Es dauert Sekunden.</translation>
    </message>
    <message>
      <source>Steady over time</source>
      <translation>Über die Zeit beruhigen</translation>
    </message>
    <message>
      <source>In clips: at 100 % the frames around weigh most, so that the mask does not flicker; at 0 each frame stands alone.</source>
      <translation>Bei Clips: Bei 100 % zählen die Bilder ringsum am meisten, damit die Maske nicht flimmert; bei 0 steht jedes Bild für sich.</translation>
    </message>
    <message>
      <source>No colour fringe</source>
      <translation>Kein Farbsaum</translation>
    </message>
    <message>
      <source>Along the outline the unmixed colours are adjusted, so that no rim of the old colour stays</source>
      <translation>Entlang des Umrisses werden die entmischten Farben angepasst, damit kein Saum der alten Farbe bleibt</translation>
    </message>
    <message>
      <source>Denoise (mask only)</source>
      <translation>Rauschen mindern (nur Maske)</translation>
    </message>
    <message>
      <source>Removes noise before the mask is made: at 1 and 2 that of colour, from 3 on grain too; at 0 the picture is measured as it is. The picture itself never changes.</source>
      <translation>Entfernt Rauschen, bevor die Maske entsteht: bei 1 und 2 das der Farbe, ab 3 auch Korn; bei 0 wird das Bild gemessen, wie es ist. Das Bild selbst ändert sich nie.</translation>
    </message>
    <message>
      <source>Brighten (mask only)</source>
      <translation>Aufhellen (nur Maske)</translation>
    </message>
    <message>
      <source>Measures a dark picture as if it had been exposed longer, so that its colours are told apart; at 0 it is measured as it is. The picture itself never changes.</source>
      <translation>Misst ein dunkles Bild, als wäre es länger belichtet, damit sich seine Farben unterscheiden lassen; bei 0 wird es gemessen, wie es ist. Das Bild selbst ändert sich nie.</translation>
    </message>
    <message>
      <source>stops</source>
      <translation>EV</translation>
    </message>
    <message>
      <source>Even out</source>
      <translation>Angleichen</translation>
    </message>
    <message>
      <source>Even lightness</source>
      <translation>Helligkeit angleichen</translation>
    </message>
    <message>
      <source>At 100 % everything inside the mask has the same lightness; at 0 nothing changes.</source>
      <translation>Bei 100 % hat alles in der Maske dieselbe Helligkeit; bei 0 ändert sich nichts.</translation>
    </message>
    <message>
      <source>Even hue</source>
      <translation>Farbton angleichen</translation>
    </message>
    <message>
      <source>At 100 % everything inside the mask has the same hue; at 0 nothing changes.</source>
      <translation>Bei 100 % hat alles in der Maske denselben Farbton; bei 0 ändert sich nichts.</translation>
    </message>
    <message>
      <source>Fill</source>
      <translation>Füllen</translation>
    </message>
    <message>
      <source>What fills: a colour, a gradient, another picture, what lies around it (for small things), or nothing (transparent)</source>
      <translation>Was füllt: eine Farbe, ein Verlauf, ein anderes Bild, was ringsum liegt (für kleine Dinge) oder nichts (durchsichtig)</translation>
    </message>
    <message>
      <source>Where</source>
      <translation>Wo</translation>
    </message>
    <message>
      <source>Inside the mask, or behind what it holds</source>
      <translation>Innerhalb der Maske oder hinter dem, was sie hält</translation>
    </message>
    <message>
      <source>Colour</source>
      <translation>Farbe</translation>
    </message>
    <message>
      <source>Colour that fills, or begins the gradient</source>
      <translation>Farbe, die füllt oder den Verlauf beginnt</translation>
    </message>
    <message>
      <source>To</source>
      <translation>Bis</translation>
    </message>
    <message>
      <source>Colour that ends the gradient</source>
      <translation>Farbe, die den Verlauf beendet</translation>
    </message>
    <message>
      <source>Angle</source>
      <translation>Winkel</translation>
    </message>
    <message>
      <source>Direction of the gradient: 0 to the right, 90 downwards.</source>
      <translation>Richtung des Verlaufs: 0 nach rechts, 90 nach unten.</translation>
    </message>
    <message>
      <source>Picture</source>
      <translation>Bild</translation>
    </message>
    <message>
      <source>Path of the picture that fills</source>
      <translation>Pfad des Bildes, das füllt</translation>
    </message>
    <message>
      <source>Across</source>
      <translation>Waagrecht</translation>
    </message>
    <message>
      <source>Moves the picture to the right above 0 and to the left below it, in per cent of the width.</source>
      <translation>Bewegt das Bild über 0 nach rechts und darunter nach links, in Prozent der Breite.</translation>
    </message>
    <message>
      <source>Down</source>
      <translation>Senkrecht</translation>
    </message>
    <message>
      <source>Moves the picture down above 0 and up below it, in per cent of the height.</source>
      <translation>Bewegt das Bild über 0 nach unten und darunter nach oben, in Prozent der Höhe.</translation>
    </message>
    <message>
      <source>Scale</source>
      <translation>Skalierung</translation>
    </message>
    <message>
      <source>At 100 % the picture just covers everything; lower is smaller, higher larger.</source>
      <translation>Bei 100 % bedeckt das Bild gerade alles; weniger ist kleiner, mehr größer.</translation>
    </message>
    <message>
      <source>Blend mode</source>
      <translation>Mischmodus</translation>
    </message>
    <message>
      <source>How it is laid over what is there</source>
      <translation>Wie es über das gelegt wird, was da ist</translation>
    </message>
    <message>
      <source>Opacity</source>
      <translation>Deckkraft</translation>
    </message>
    <message>
      <source>At 100 % the fill covers what is there; at 0 it is not seen.</source>
      <translation>Bei 100 % bedeckt die Füllung, was da ist; bei 0 ist sie nicht zu sehen.</translation>
    </message>
    <message>
      <source>Strength</source>
      <translation>Stärke</translation>
    </message>
    <message>
      <source>How much of what its sieves do the group gives</source>
      <translation>Wie viel die Gruppe von dem gibt, was ihre Siebe tun</translation>
    </message>
    <message>
      <source>Curves by hue</source>
      <translation>Kurven nach Farbton</translation>
    </message>
    <message>
      <source>Hue shift by hue</source>
      <translation>Farbton verschieben nach Farbton</translation>
    </message>
    <message>
      <source>Degrees that single hues are shifted by</source>
      <translation>Grad, um die einzelne Farbtöne verschoben werden</translation>
    </message>
    <message>
      <source>Saturation by hue</source>
      <translation>Sättigung nach Farbton</translation>
    </message>
    <message>
      <source>From grey (-100) to twice the chroma (100), for single hues</source>
      <translation>Von grau (-100) bis zum doppelten Chroma (100), für einzelne Farbtöne</translation>
    </message>
    <message>
      <source>Lightness by hue</source>
      <translation>Helligkeit nach Farbton</translation>
    </message>
    <message>
      <source>Darker (-100) or lighter (100), for single hues</source>
      <translation>Dunkler (-100) oder heller (100), für einzelne Farbtöne</translation>
    </message>
    <message>
      <source>Light</source>
      <translation>Licht</translation>
    </message>
    <message>
      <source>Exposure</source>
      <translation>Belichtung</translation>
    </message>
    <message>
      <source>Each stop above 0 doubles the light, each stop below halves it.</source>
      <translation>Jede Blende über 0 verdoppelt das Licht, jede darunter halbiert es.</translation>
    </message>
    <message>
      <source>Contrast</source>
      <translation>Kontrast</translation>
    </message>
    <message>
      <source>At 100 % distances from the pivot double, in stops; at -100 % they halve.</source>
      <translation>Bei 100 % verdoppeln sich die Abstände vom Drehpunkt, in Blenden; bei -100 % halbieren sie sich.</translation>
    </message>
    <message>
      <source>Pivot</source>
      <translation>Pivot</translation>
    </message>
    <message>
      <source>The light that contrast leaves alone: 0 is mid grey, above 0 lighter, below 0 darker.</source>
      <translation>Das Licht, das der Kontrast in Ruhe lässt: 0 ist Mittelgrau, darüber heller, darunter dunkler.</translation>
    </message>
    <message>
      <source>Highlights</source>
      <translation>Lichter</translation>
    </message>
    <message>
      <source>Above 0 what is lighter than mid grey becomes lighter, below 0 darker.</source>
      <translation>Über 0 wird heller, was heller als Mittelgrau ist, darunter dunkler.</translation>
    </message>
    <message>
      <source>Shadows</source>
      <translation>Schatten</translation>
    </message>
    <message>
      <source>Above 0 what is darker than mid grey becomes lighter, below 0 darker.</source>
      <translation>Über 0 wird heller, was dunkler als Mittelgrau ist, darunter dunkler.</translation>
    </message>
    <message>
      <source>The luminance that becomes white: below 100 % the picture gets lighter, above it darker.</source>
      <translation>Die Luminanz, die weiß wird: unter 100 % wird das Bild heller, darüber dunkler.</translation>
    </message>
    <message>
      <source>The luminance that becomes black: at 0 nothing changes, higher values deepen the shadows.</source>
      <translation>Die Luminanz, die schwarz wird: bei 0 ändert sich nichts, höhere Werte vertiefen die Schatten.</translation>
    </message>
    <message>
      <source>Above 1 the tones between black and white get lighter, below 1 darker.</source>
      <translation>Über 1 werden die Töne zwischen Schwarz und Weiß heller, darunter dunkler.</translation>
    </message>
    <message>
      <source>Lookup table</source>
      <translation>Farbtabelle</translation>
    </message>
    <message>
      <source>Table</source>
      <translation>Tabelle</translation>
    </message>
    <message>
      <source>A lookup table (.cube, .clf) over sRGB-coded values</source>
      <translation>Eine Farbtabelle (.cube, .clf) über sRGB-kodierte Werte</translation>
    </message>
    <message>
      <source>Match a target</source>
      <translation>An ein Ziel angleichen</translation>
    </message>
    <message>
      <source>Target</source>
      <translation>Ziel</translation>
    </message>
    <message>
      <source>Colour that the mean of what is masked becomes</source>
      <translation>Farbe, die der Mittelwert des Maskierten wird</translation>
    </message>
    <message>
      <source>Stay believable</source>
      <translation>Glaubhaft bleiben</translation>
    </message>
    <message>
      <source>Goes towards the target only as far as no colour leaves the gamut and no shade is crushed</source>
      <translation>Geht nur so weit zum Ziel, dass keine Farbe den Farbumfang verlässt und kein Schatten zuläuft</translation>
    </message>
    <message>
      <source>Black and white</source>
      <translation>Schwarzweiß</translation>
    </message>
    <message>
      <source>Amount</source>
      <translation>Menge</translation>
    </message>
    <message>
      <source>At 100 % the picture is black and white, at 0 it keeps its colours.</source>
      <translation>Bei 100 % ist das Bild schwarzweiß, bei 0 behält es seine Farben.</translation>
    </message>
    <message>
      <source>Red</source>
      <translation>Rot</translation>
    </message>
    <message>
      <source>How bright red light becomes in the grey: higher is lighter, below 0 it darkens.</source>
      <translation>Wie hell rotes Licht im Grau wird: mehr ist heller, unter 0 verdunkelt es.</translation>
    </message>
    <message>
      <source>Green</source>
      <translation>Grün</translation>
    </message>
    <message>
      <source>How bright green light becomes in the grey: higher is lighter, below 0 it darkens.</source>
      <translation>Wie hell grünes Licht im Grau wird: mehr ist heller, unter 0 verdunkelt es.</translation>
    </message>
    <message>
      <source>Blue</source>
      <translation>Blau</translation>
    </message>
    <message>
      <source>How bright blue light becomes in the grey: higher is lighter, below 0 it darkens.</source>
      <translation>Wie hell blaues Licht im Grau wird: mehr ist heller, unter 0 verdunkelt es.</translation>
    </message>
    <message>
      <source>Shading</source>
      <translation>Schattierung</translation>
    </message>
    <message>
      <source>At 100 % light and shade on the same surface make no difference; at 0 they count like any other.</source>
      <translation>Bei 100 % machen Licht und Schatten auf derselben Oberfläche keinen Unterschied; bei 0 zählen sie wie alles andere.</translation>
    </message>
    <message>
      <source>Gloss</source>
      <translation>Glanz</translation>
    </message>
    <message>
      <source>At 100 % pale highlights on the same surface are included; at 0 they count like any other colour. When it is right, highlights are white in the mask.</source>
      <translation>Bei 100 % gehören blasse Glanzlichter derselben Fläche dazu; bei 0 zählen sie wie jede andere Farbe. Stimmt es, sind Glanzlichter in der Maske weiß.</translation>
    </message>
    <message>
      <source>Hue weight</source>
      <translation>Gewicht des Farbtons</translation>
    </message>
    <message>
      <source>Above 100 % a difference in hue counts more, below it less; at 0 hue makes no difference.</source>
      <translation>Über 100 % zählt ein Unterschied im Farbton mehr, darunter weniger; bei 0 macht der Farbton keinen Unterschied.</translation>
    </message>
    <message>
      <source>Saturation weight</source>
      <translation>Gewicht der Sättigung</translation>
    </message>
    <message>
      <source>Above 100 % a difference in saturation counts more, below it less; at 0 saturation makes no difference.</source>
      <translation>Über 100 % zählt ein Unterschied in der Sättigung mehr, darunter weniger; bei 0 macht die Sättigung keinen Unterschied.</translation>
    </message>
    <message>
      <source>Connected only</source>
      <translation>Nur Zusammenhängendes</translation>
    </message>
    <message>
      <source>Only what hangs together with a kept place</source>
      <translation>Nur was mit einer behaltenen Stelle zusammenhängt</translation>
    </message>
    <message>
      <source>Bridge gaps</source>
      <translation>Lücken überbrücken</translation>
    </message>
    <message>
      <source>Gaps up to this wide are crossed when only what is connected is kept.</source>
      <translation>Lücken bis zu dieser Breite werden überbrückt, wenn nur Zusammenhängendes bleibt.</translation>
    </message>
    <message>
      <source>Include transparent pixels</source>
      <translation>Durchsichtige Pixel einbeziehen</translation>
    </message>
    <message>
      <source>Whether wholly transparent pixels may count</source>
      <translation>Ob ganz durchsichtige Pixel zählen dürfen</translation>
    </message>
    <message>
      <source>of this picture over that of the one picked on: found, not looked for, or gains of red, green and blue</source>
      <translation>dieses Bildes gegenüber dem, auf dem gewählt wurde: gefunden, nicht gesucht, oder Faktoren für Rot, Grün und Blau</translation>
    </message>
    <message>
      <source>Flat picture</source>
      <translation>Flaches Bild</translation>
    </message>
    <message>
      <source>recorded with a log curve and read as sRGB, which is undone before measuring: found, as it is, or its lowest and highest code</source>
      <translation>mit einer Log-Kurve aufgenommen und als sRGB gelesen, was vor dem Messen rückgängig gemacht wird: gefunden, wie es ist, oder niedrigster und höchster Code</translation>
    </message>
    <message>
      <source>Text size</source>
      <translation>Textgröße</translation>
    </message>
    <message>
      <source>At 200 % letters are twice as large.</source>
      <translation>Bei 200 % sind Buchstaben doppelt so groß.</translation>
    </message>
    <message>
      <source>Veil opacity</source>
      <translation>Deckkraft des Schleiers</translation>
    </message>
    <message>
      <source>How much the veil covers</source>
      <translation>Wie viel der Schleier bedeckt</translation>
    </message>
    <message>
      <source>Inset width</source>
      <translation>Breite des Einsatzes</translation>
    </message>
    <message>
      <source>Width of the inset mask, of the picture's pane</source>
      <translation>Breite der eingesetzten Maske, gemessen an der Ansicht des Bildes</translation>
    </message>
    <message>
      <source>Inset place</source>
      <translation>Lage des Einsatzes</translation>
    </message>
    <message>
      <source>Where the inset lies from left (0) to right (100)</source>
      <translation>Wo der Einsatz liegt, von links (0) nach rechts (100)</translation>
    </message>
    <message>
      <source>Inset height</source>
      <translation>Höhe des Einsatzes</translation>
    </message>
    <message>
      <source>Where the inset lies from top (0) to bottom (100)</source>
      <translation>Wo der Einsatz liegt, von oben (0) nach unten (100)</translation>
    </message>
    <message>
      <source>Cache</source>
      <translation>Zwischenspeicher</translation>
    </message>
    <message>
      <source>Memory for finished stages and pictures that stay open behind, so that changes show at once</source>
      <translation>Speicher für fertige Zwischenschritte und Bilder, die im Hintergrund offen bleiben, damit Änderungen sofort zu sehen sind</translation>
    </message>
    <message>
      <source>Port</source>
      <translation>Port</translation>
    </message>
    <message>
      <source>Where control surfaces on this machine are listened to.</source>
      <translation>Wo auf Bedienpulte dieses Rechners gehört wird.</translation>
    </message>
    <message>
      <source>Working space</source>
      <translation>Arbeitsfarbraum</translation>
    </message>
    <message>
      <source>linear space of OpenColorIO in whose channels CDL and curves work; "" for Rec. 709</source>
      <translation>linearer Raum von OpenColorIO, in dessen Kanälen CDL und Kurven arbeiten; "" für Rec. 709</translation>
    </message>
    <message>
      <source>Display</source>
      <translation>Anzeige</translation>
    </message>
    <message>
      <source>"display / view" of OpenColorIO it is seen and written through; "" for none</source>
      <translation>"Anzeige / Ansicht" von OpenColorIO, durch die es gesehen und geschrieben wird; "" für keine</translation>
    </message>
    <message>
      <source>Gamut</source>
      <translation>Farbumfang</translation>
    </message>
    <message>
      <source>How colours outside the output gamut are brought back</source>
      <translation>Wie Farben außerhalb des Farbumfangs der Ausgabe zurückgeholt werden</translation>
    </message>
    <message>
      <source>Up to this luminance nothing is masked.</source>
      <translation>Bis zu dieser Luminanz ist nichts maskiert.</translation>
    </message>
    <message>
      <source>From this luminance on everything is masked.</source>
      <translation>Ab dieser Luminanz ist alles maskiert.</translation>
    </message>
    <message>
      <source>Recolour</source>
      <translation>Umfärben</translation>
    </message>
    <message>
      <source>Hue</source>
      <translation>Farbton</translation>
    </message>
    <message>
      <source>Turns every hue by this angle; 180 degrees gives the opposite colour.</source>
      <translation>Dreht jeden Farbton um diesen Winkel; 180 Grad ergeben die Gegenfarbe.</translation>
    </message>
    <message>
      <source>Saturation</source>
      <translation>Sättigung</translation>
    </message>
    <message>
      <source>At -100 % colours become grey, at 100 % their chroma doubles.</source>
      <translation>Bei -100 % werden Farben grau, bei 100 % verdoppelt sich ihr Chroma.</translation>
    </message>
    <message>
      <source>Vibrance</source>
      <translation>Lebendigkeit</translation>
    </message>
    <message>
      <source>Like saturation, but colours that are rich already change less, and skin tones least.</source>
      <translation>Wie Sättigung, doch ändern sich Farben, die schon kräftig sind, weniger, und Hauttöne am wenigsten.</translation>
    </message>
    <message>
      <source>Lightness</source>
      <translation>Helligkeit</translation>
    </message>
    <message>
      <source>At -100 % everything is black, at 100 % white.</source>
      <translation>Bei -100 % ist alles schwarz, bei 100 % weiß.</translation>
    </message>
    <message>
      <source>Draw hues together</source>
      <translation>Farbtöne zusammenziehen</translation>
    </message>
    <message>
      <source>At 100 % all hues become the one given beside it; at 0 none changes. When it is right, the thing has one hue, and its light and dark are what they were.</source>
      <translation>Bei 100 % werden alle Farbtöne zu dem daneben; bei 0 ändert sich keiner. Stimmt es, hat das Ding einen Farbton, und sein Hell und Dunkel sind, wie sie waren.</translation>
    </message>
    <message>
      <source>Towards hue</source>
      <translation>Zum Farbton</translation>
    </message>
    <message>
      <source>The hue that all others are drawn towards.</source>
      <translation>Der Farbton, zu dem alle anderen gezogen werden.</translation>
    </message>
    <message>
      <source>As if dyed</source>
      <translation>Wie gefärbt</translation>
    </message>
    <message>
      <source>Change the thing's own colour alone: light, folds and gloss stay as they are</source>
      <translation>Nur die eigene Farbe des Dings ändern: Licht, Falten und Glanz bleiben, wie sie sind</translation>
    </message>
    <message>
      <source>Reach</source>
      <translation>Reichweite</translation>
    </message>
    <message>
      <source>All of the picture, or only the piece that hangs together with its place</source>
      <translation>Das ganze Bild oder nur das Stück, das mit der Stelle zusammenhängt</translation>
    </message>
    <message>
      <source>Drop rule</source>
      <translation>Weglass-Regel</translation>
    </message>
    <message>
      <source>Of a drop sample: it takes what lies nearer to it than to any keep sample, or all within its tolerance</source>
      <translation>Bei einer Weglassen-Probe: Sie nimmt, was ihr näher liegt als jeder Behalten-Probe, oder alles innerhalb ihrer Toleranz</translation>
    </message>
    <message>
      <source>Tolerance</source>
      <translation>Toleranz</translation>
    </message>
    <message>
      <source>How different from the sample a colour may be and still be masked fully: 0 takes only the sample's own colour, more takes more.</source>
      <translation>Wie verschieden eine Farbe von der Probe sein darf und noch voll maskiert ist: 0 nimmt nur die eigene Farbe der Probe, mehr nimmt mehr.</translation>
    </message>
    <message>
      <source>Falloff</source>
      <translation>Auslauf</translation>
    </message>
    <message>
      <source>Over how much more difference the mask fades from full to nothing: 0 gives a hard edge between colours.</source>
      <translation>Über welchen weiteren Unterschied die Maske von voll zu nichts ausläuft: 0 ergibt eine harte Grenze zwischen Farben.</translation>
    </message>
    <message>
      <source>Opposite</source>
      <translation>Gegenteil</translation>
    </message>
    <message>
      <source>The finished mask turned round</source>
      <translation>Die fertige Maske umgekehrt</translation>
    </message>
    <message>
      <source>Invert the mask</source>
      <translation>Maske umkehren</translation>
    </message>
    <message>
      <source>What was masked is not, and what was not is</source>
      <translation>Was maskiert war, ist es nicht, und was es nicht war, ist es</translation>
    </message>
    <message>
      <source>Effect outside the mask</source>
      <translation>Wirkung außerhalb der Maske</translation>
    </message>
    <message>
      <source>How much of the adjustment is also seen outside the mask: at 0 none, at 100 % the mask makes no difference.</source>
      <translation>Wie viel von der Anpassung auch außerhalb der Maske zu sehen ist: bei 0 nichts, bei 100 % macht die Maske keinen Unterschied.</translation>
    </message>
    <message>
      <source>How much of the adjustment is seen: at 0 none, at 100 % all of it.</source>
      <translation>Wie viel von der Anpassung zu sehen ist: bei 0 nichts, bei 100 % alles.</translation>
    </message>
    <message>
      <source>How what is done is laid over the picture that arrives</source>
      <translation>Wie das Ergebnis über das ankommende Bild gelegt wird</translation>
    </message>
    <message>
      <source>Diameter of the brush.</source>
      <translation>Durchmesser des Pinsels.</translation>
    </message>
    <message>
      <source>Hardness</source>
      <translation>Härte</translation>
    </message>
    <message>
      <source>At 0 the brush is soft from its middle on, at 100 % it ends within a pixel.</source>
      <translation>Bei 0 ist der Pinsel von der Mitte an weich, bei 100 % endet er innerhalb eines Pixels.</translation>
    </message>
    <message>
      <source>Flow</source>
      <translation>Fluss</translation>
    </message>
    <message>
      <source>How much each dab lays on: low values build up slowly.</source>
      <translation>Wie viel jeder Tupfer aufträgt: niedrige Werte bauen sich langsam auf.</translation>
    </message>
    <message>
      <source>The most that one stroke can cover.</source>
      <translation>Das meiste, was ein Strich decken kann.</translation>
    </message>
    <message>
      <source>White balance</source>
      <translation>Weißabgleich</translation>
    </message>
    <message>
      <source>Temperature</source>
      <translation>Temperatur</translation>
    </message>
    <message>
      <source>Above 0 the light becomes warmer, as through an amber filter; below 0 it becomes cooler. 10 mired near daylight are about 450 kelvin.</source>
      <translation>Über 0 wird das Licht wärmer, wie durch einen Bernsteinfilter, darunter kühler. 10 Mired sind nahe Tageslicht etwa 450 Kelvin.</translation>
    </message>
    <message>
      <source>mired</source>
      <translation>Mired</translation>
    </message>
    <message>
      <source>Tint</source>
      <translation>Tönung</translation>
    </message>
    <message>
      <source>Above 0 the light leans to magenta, below 0 to green.</source>
      <translation>Über 0 neigt das Licht zu Magenta, darunter zu Grün.</translation>
    </message>
  </context>
  <context>
    <name>names</name>
    <message>
      <source>Surface</source>
      <translation>Oberfläche</translation>
    </message>
    <message>
      <source>Colour</source>
      <translation>Farbe</translation>
    </message>
    <message>
      <source>Levels</source>
      <translation>Stufen</translation>
    </message>
    <message>
      <source>Hue</source>
      <translation>Farbton</translation>
    </message>
    <message>
      <source>Saturation</source>
      <translation>Sättigung</translation>
    </message>
    <message>
      <source>Luminance</source>
      <translation>Luminanz</translation>
    </message>
    <message>
      <source>Red</source>
      <translation>Rot</translation>
    </message>
    <message>
      <source>Green</source>
      <translation>Grün</translation>
    </message>
    <message>
      <source>Blue</source>
      <translation>Blau</translation>
    </message>
    <message>
      <source>Linear</source>
      <translation>Linear</translation>
    </message>
    <message>
      <source>Smooth</source>
      <translation>Weich</translation>
    </message>
    <message>
      <source>Steep</source>
      <translation>Steil</translation>
    </message>
    <message>
      <source>Gentle</source>
      <translation>Sanft</translation>
    </message>
    <message>
      <source>Hard</source>
      <translation>Hart</translation>
    </message>
    <message>
      <source>Bend</source>
      <translation>Gebogen</translation>
    </message>
    <message>
      <source>Both</source>
      <translation>Beide</translation>
    </message>
    <message>
      <source>Inwards</source>
      <translation>Nach innen</translation>
    </message>
    <message>
      <source>Outwards</source>
      <translation>Nach außen</translation>
    </message>
    <message>
      <source>Position</source>
      <translation>Lage</translation>
    </message>
    <message>
      <source>Position, size and rotation</source>
      <translation>Lage, Größe und Drehung</translation>
    </message>
    <message>
      <source>Perspective</source>
      <translation>Perspektive</translation>
    </message>
    <message>
      <source>Normal</source>
      <translation>Normal</translation>
    </message>
    <message>
      <source>Multiply</source>
      <translation>Multiplizieren</translation>
    </message>
    <message>
      <source>Darken</source>
      <translation>Abdunkeln</translation>
    </message>
    <message>
      <source>Lighten</source>
      <translation>Aufhellen</translation>
    </message>
    <message>
      <source>Screen</source>
      <translation>Negativ multiplizieren</translation>
    </message>
    <message>
      <source>Overlay</source>
      <translation>Überlagern</translation>
    </message>
    <message>
      <source>Color-dodge</source>
      <translation>Farbig abwedeln</translation>
    </message>
    <message>
      <source>Color-burn</source>
      <translation>Farbig nachbelichten</translation>
    </message>
    <message>
      <source>Hard-light</source>
      <translation>Hartes Licht</translation>
    </message>
    <message>
      <source>Soft-light</source>
      <translation>Weiches Licht</translation>
    </message>
    <message>
      <source>Difference</source>
      <translation>Differenz</translation>
    </message>
    <message>
      <source>Exclusion</source>
      <translation>Ausschluss</translation>
    </message>
    <message>
      <source>Color</source>
      <translation>Farbe</translation>
    </message>
    <message>
      <source>Luminosity</source>
      <translation>Luminanz</translation>
    </message>
    <message>
      <source>Off</source>
      <translation>Aus</translation>
    </message>
    <message>
      <source>Gradient</source>
      <translation>Verlauf</translation>
    </message>
    <message>
      <source>Picture</source>
      <translation>Bild</translation>
    </message>
    <message>
      <source>Surroundings</source>
      <translation>Umgebung</translation>
    </message>
    <message>
      <source>Nothing</source>
      <translation>Nichts</translation>
    </message>
    <message>
      <source>Inside</source>
      <translation>Innen</translation>
    </message>
    <message>
      <source>Behind</source>
      <translation>Dahinter</translation>
    </message>
    <message>
      <source>Hold</source>
      <translation>Halten</translation>
    </message>
    <message>
      <source>Result</source>
      <translation>Ergebnis</translation>
    </message>
    <message>
      <source>Mask</source>
      <translation>Maske</translation>
    </message>
    <message>
      <source>Cut-out</source>
      <translation>Freisteller</translation>
    </message>
    <message>
      <source>Every mask</source>
      <translation>Jede Maske</translation>
    </message>
    <message>
      <source>Best</source>
      <translation>Am besten</translation>
    </message>
    <message>
      <source>Mean</source>
      <translation>Mittelwert</translation>
    </message>
    <message>
      <source>Lanczos</source>
      <translation>Lanczos</translation>
    </message>
    <message>
      <source>Cubic</source>
      <translation>Kubisch</translation>
    </message>
    <message>
      <source>Nearest</source>
      <translation>Nächstes</translation>
    </message>
    <message>
      <source>Lookup table</source>
      <translation>Farbtabelle</translation>
    </message>
    <message>
      <source>Colour decision list</source>
      <translation>Farbentscheidungsliste</translation>
    </message>
    <message>
      <source>Matrix</source>
      <translation>Matrix</translation>
    </message>
    <message>
      <source>Range</source>
      <translation>Wertebereich</translation>
    </message>
    <message>
      <source>Curve</source>
      <translation>Kurve</translation>
    </message>
    <message>
      <source>Primaries</source>
      <translation>Primärfarben</translation>
    </message>
    <message>
      <source>Shadows</source>
      <translation>Schatten</translation>
    </message>
    <message>
      <source>Midtones</source>
      <translation>Mitteltöne</translation>
    </message>
    <message>
      <source>Highlights</source>
      <translation>Lichter</translation>
    </message>
    <message>
      <source>Dark</source>
      <translation>Dunkel</translation>
    </message>
    <message>
      <source>Mid</source>
      <translation>Mittel</translation>
    </message>
    <message>
      <source>Light</source>
      <translation>Hell</translation>
    </message>
    <message>
      <source>Add</source>
      <translation>Hinzufügen</translation>
    </message>
    <message>
      <source>Subtract</source>
      <translation>Abziehen</translation>
    </message>
    <message>
      <source>Intersect</source>
      <translation>Schneiden</translation>
    </message>
    <message>
      <source>Keep</source>
      <translation>Behalten</translation>
    </message>
    <message>
      <source>Drop</source>
      <translation>Weglassen</translation>
    </message>
    <message>
      <source>Adjustments</source>
      <translation>Anpassungen</translation>
    </message>
    <message>
      <source>Rect</source>
      <translation>Rechteck</translation>
    </message>
    <message>
      <source>Ellipse</source>
      <translation>Ellipse</translation>
    </message>
    <message>
      <source>Radial</source>
      <translation>Radial</translation>
    </message>
    <message>
      <source>Polygon</source>
      <translation>Polygon</translation>
    </message>
    <message>
      <source>Brush</source>
      <translation>Pinsel</translation>
    </message>
  </context>
  <context>
    <name>pages</name>
    <message>
      <source>Out of gamut: reduce chroma</source>
      <translation>Außerhalb: Chroma mindern</translation>
    </message>
    <message>
      <source>Out of gamut: clip</source>
      <translation>Außerhalb: abschneiden</translation>
    </message>
    <message>
      <source>Pictures</source>
      <translation>Bilder</translation>
    </message>
    <message>
      <source>Amount</source>
      <translation>Menge</translation>
    </message>
    <message>
      <source>Blend mode</source>
      <translation>Mischmodus</translation>
    </message>
    <message>
      <source>Reset the adjustments</source>
      <translation>Anpassungen zurücksetzen</translation>
    </message>
    <message>
      <source>Whole project</source>
      <translation>Ganzes Projekt</translation>
    </message>
    <message>
      <source>Gamut</source>
      <translation>Farbumfang</translation>
    </message>
    <message>
      <source>Copy to another sieve</source>
      <translation>In ein anderes Sieb kopieren</translation>
    </message>
    <message>
      <source>Reset</source>
      <translation>Zurücksetzen</translation>
    </message>
    <message>
      <source>Realism check</source>
      <translation>Echtheitsprüfung</translation>
    </message>
    <message>
      <source>Click a place in the picture that should be grey: temperature and tint make it so</source>
      <translation>Eine Stelle im Bild anklicken, die grau sein soll: Temperatur und Tönung machen sie so</translation>
    </message>
    <message>
      <source>Pick a neutral</source>
      <translation>Neutral wählen</translation>
    </message>
    <message>
      <source>Click what should be grey</source>
      <translation>Anklicken, was grau sein soll</translation>
    </message>
    <message>
      <source>Highlights that keep their colour: Gloss</source>
      <translation>Lichter, die ihre Farbe behalten: Glanz</translation>
    </message>
    <message>
      <source>Goes to Gloss on the page Pick, which takes pale highlights into the mask</source>
      <translation>Geht zu „Glanz“ auf der Seite „Auswahl“, das blasse Glanzlichter in die Maske nimmt</translation>
    </message>
    <message>
      <source>Target</source>
      <translation>Ziel</translation>
    </message>
    <message>
      <source>Colour that the mean of what is masked becomes; light, shade and texture stay</source>
      <translation>Farbe, die der Mittelwert des Maskierten wird; Licht, Schatten und Struktur bleiben</translation>
    </message>
    <message>
      <source>Click the target in the picture</source>
      <translation>Das Ziel im Bild anklicken</translation>
    </message>
    <message>
      <source>Pick in this picture</source>
      <translation>In diesem Bild wählen</translation>
    </message>
    <message>
      <source>Click the target in another picture</source>
      <translation>Das Ziel in einem anderen Bild anklicken</translation>
    </message>
    <message>
      <source>Pick in another picture…</source>
      <translation>In einem anderen Bild wählen …</translation>
    </message>
    <message>
      <source>No target</source>
      <translation>Kein Ziel</translation>
    </message>
    <message>
      <source>Click the colour that the masked should become</source>
      <translation>Die Farbe anklicken, die das Maskierte werden soll</translation>
    </message>
    <message>
      <source>Lookup table</source>
      <translation>Farbtabelle</translation>
    </message>
    <message>
      <source>Colour</source>
      <translation>Farbe</translation>
    </message>
    <message>
      <source>Colour that fills, or begins the gradient</source>
      <translation>Farbe, die füllt oder den Verlauf beginnt</translation>
    </message>
    <message>
      <source>To</source>
      <translation>Bis</translation>
    </message>
    <message>
      <source>Colour that ends the gradient</source>
      <translation>Farbe, die den Verlauf beendet</translation>
    </message>
    <message>
      <source>Fill colour</source>
      <translation>Füllfarbe</translation>
    </message>
    <message>
      <source>Choose a picture…</source>
      <translation>Ein Bild wählen …</translation>
    </message>
    <message>
      <source>The picture that fills</source>
      <translation>Das Bild, das füllt</translation>
    </message>
    <message>
      <source>Fill with a picture</source>
      <translation>Mit einem Bild füllen</translation>
    </message>
    <message>
      <source>Move, scale, turn (round handle) and skew (Ctrl) the chosen area; Shift scales about its middle</source>
      <translation>Die gewählte Fläche verschieben, skalieren, drehen (runder Griff) und scheren (Strg); Umschalt skaliert um die Mitte</translation>
    </message>
    <message>
      <source>Drag a rectangle</source>
      <translation>Ein Rechteck ziehen</translation>
    </message>
    <message>
      <source>Drag an ellipse</source>
      <translation>Eine Ellipse ziehen</translation>
    </message>
    <message>
      <source>Click corners; Backspace removes the last one, double-click or Enter closes</source>
      <translation>Ecken anklicken; die Rücktaste entfernt die letzte, Doppelklick oder Enter schließt</translation>
    </message>
    <message>
      <source>Draw round what you want</source>
      <translation>Um das Gewünschte herum zeichnen</translation>
    </message>
    <message>
      <source>Click along an outline: it follows the edges of the picture; Backspace removes the last point, double-click or Enter closes</source>
      <translation>Entlang eines Umrisses klicken: Er folgt den Kanten des Bildes; die Rücktaste entfernt den letzten Punkt, Doppelklick oder Enter schließt</translation>
    </message>
    <message>
      <source>Drag from full to nothing</source>
      <translation>Von voll zu leer ziehen</translation>
    </message>
    <message>
      <source>Drag a soft round area</source>
      <translation>Eine weiche runde Fläche ziehen</translation>
    </message>
    <message>
      <source>Paint; Ctrl erases, Shift+click draws a straight line, [ and ] or dragging with the right button change the size</source>
      <translation>Malen; Strg löscht, Umschalt+Klick zieht eine gerade Linie, [ und ] oder Ziehen mit der rechten Taste ändern die Größe</translation>
    </message>
    <message>
      <source>Select</source>
      <translation>Wählen</translation>
    </message>
    <message>
      <source>Rectangle</source>
      <translation>Rechteck</translation>
    </message>
    <message>
      <source>Ellipse</source>
      <translation>Ellipse</translation>
    </message>
    <message>
      <source>Polygon</source>
      <translation>Polygon</translation>
    </message>
    <message>
      <source>Freehand</source>
      <translation>Freihand</translation>
    </message>
    <message>
      <source>Edge outline</source>
      <translation>Kantenlinie</translation>
    </message>
    <message>
      <source>Gradient</source>
      <translation>Verlauf</translation>
    </message>
    <message>
      <source>Radial</source>
      <translation>Radial</translation>
    </message>
    <message>
      <source>Brush</source>
      <translation>Pinsel</translation>
    </message>
    <message>
      <source>Edge sensitivity</source>
      <translation>Kantenempfindlichkeit</translation>
    </message>
    <message>
      <source>From strong edges only to weak ones too</source>
      <translation>Von nur starken Kanten bis auch zu schwachen</translation>
    </message>
    <message>
      <source>New areas: limit first, then add</source>
      <translation>Neu: begrenzen, dann hinzu</translation>
    </message>
    <message>
      <source>New areas: add</source>
      <translation>Neu: hinzufügen</translation>
    </message>
    <message>
      <source>New areas: subtract</source>
      <translation>Neu: abziehen</translation>
    </message>
    <message>
      <source>New areas: limit to</source>
      <translation>Neu: begrenzen auf</translation>
    </message>
    <message>
      <source>How new areas join</source>
      <translation>Wie neue Flächen dazukommen</translation>
    </message>
    <message>
      <source>Areas</source>
      <translation>Flächen</translation>
    </message>
    <message>
      <source>Applied from top to bottom; the tick switches an area, F2 renames it</source>
      <translation>Von oben nach unten angewandt; das Häkchen schaltet eine Fläche, F2 benennt sie um</translation>
    </message>
    <message>
      <source>Remove the chosen area (Delete)</source>
      <translation>Die gewählte Fläche entfernen (Entf)</translation>
    </message>
    <message>
      <source>Duplicate the chosen area</source>
      <translation>Die gewählte Fläche verdoppeln</translation>
    </message>
    <message>
      <source>Apply the chosen area earlier</source>
      <translation>Die gewählte Fläche früher anwenden</translation>
    </message>
    <message>
      <source>Apply the chosen area later</source>
      <translation>Die gewählte Fläche später anwenden</translation>
    </message>
    <message>
      <source>Chosen area</source>
      <translation>Gewählte Fläche</translation>
    </message>
    <message>
      <source>Add</source>
      <translation>Hinzufügen</translation>
    </message>
    <message>
      <source>Subtract</source>
      <translation>Abziehen</translation>
    </message>
    <message>
      <source>Limit to</source>
      <translation>Begrenzen auf</translation>
    </message>
    <message>
      <source>How this area joins</source>
      <translation>Wie diese Fläche dazukommt</translation>
    </message>
    <message>
      <source>Area mode</source>
      <translation>Art der Fläche</translation>
    </message>
    <message>
      <source>Inverted</source>
      <translation>Umgekehrt</translation>
    </message>
    <message>
      <source>Invert area</source>
      <translation>Fläche umkehren</translation>
    </message>
    <message>
      <source>Area feather</source>
      <translation>Weiche Kante der Fläche</translation>
    </message>
    <message>
      <source>Area feather which way</source>
      <translation>Richtung der weichen Kante der Fläche</translation>
    </message>
    <message>
      <source>Snap</source>
      <translation>Einrasten</translation>
    </message>
    <message>
      <source>Pull points to borders, middle lines and other areas</source>
      <translation>Punkte zu Rändern, Mittellinien und anderen Flächen ziehen</translation>
    </message>
    <message>
      <source>Pen pressure: off</source>
      <translation>Stiftdruck: aus</translation>
    </message>
    <message>
      <source>Pen pressure: size</source>
      <translation>Stiftdruck: Größe</translation>
    </message>
    <message>
      <source>Pen pressure: flow</source>
      <translation>Stiftdruck: Fluss</translation>
    </message>
    <message>
      <source>What tablet pressure acts on</source>
      <translation>Worauf der Stiftdruck wirkt</translation>
    </message>
    <message>
      <source>Similar colours only</source>
      <translation>Nur ähnliche Farben</translation>
    </message>
    <message>
      <source>Paint only where the picture resembles the place the stroke began</source>
      <translation>Nur dort malen, wo das Bild der Stelle ähnelt, an der der Strich begann</translation>
    </message>
    <message>
      <source>Area {name}</source>
      <translation>Fläche: {name}</translation>
    </message>
    <message>
      <source>Switch or rename area</source>
      <translation>Fläche schalten oder umbenennen</translation>
    </message>
    <message>
      <source>Duplicate area</source>
      <translation>Fläche verdoppeln</translation>
    </message>
    <message>
      <source>Reorder areas</source>
      <translation>Flächen umordnen</translation>
    </message>
    <message>
      <source>add</source>
      <translation>hinzufügen</translation>
    </message>
    <message>
      <source>subtract</source>
      <translation>abziehen</translation>
    </message>
    <message>
      <source>limit to</source>
      <translation>begrenzen auf</translation>
    </message>
    <message>
      <source>Corner</source>
      <translation>Ecke</translation>
    </message>
    <message>
      <source>Softness</source>
      <translation>Weichheit</translation>
    </message>
    <message>
      <source>How softly shadows, midtones and highlights meet</source>
      <translation>Wie weich Schatten, Mitteltöne und Lichter ineinander übergehen</translation>
    </message>
    <message>
      <source>Fade in from</source>
      <translation>Beginn ab</translation>
    </message>
    <message>
      <source>Full from</source>
      <translation>Voll ab</translation>
    </message>
    <message>
      <source>Full to</source>
      <translation>Voll bis</translation>
    </message>
    <message>
      <source>Fade out to</source>
      <translation>Ende bei</translation>
    </message>
    <message>
      <source>Presets</source>
      <translation>Vorgaben</translation>
    </message>
    <message>
      <source>A preset replaces the pick and the bands of this sieve</source>
      <translation>Eine Vorgabe ersetzt die Auswahl und die Bänder dieses Siebes</translation>
    </message>
    <message>
      <source>Save…</source>
      <translation>Sichern …</translation>
    </message>
    <message>
      <source>Save this pick, these bands and this edge as a preset of your own</source>
      <translation>Diese Auswahl, diese Bänder und diesen Rand als eigene Vorgabe sichern</translation>
    </message>
    <message>
      <source>Import…</source>
      <translation>Import …</translation>
    </message>
    <message>
      <source>Import a preset from a file</source>
      <translation>Eine Vorgabe aus einer Datei importieren</translation>
    </message>
    <message>
      <source>Export…</source>
      <translation>Export …</translation>
    </message>
    <message>
      <source>Export these settings as a preset file</source>
      <translation>Diese Werte als Vorgabedatei exportieren</translation>
    </message>
    <message>
      <source>Set from samples</source>
      <translation>Nach Proben setzen</translation>
    </message>
    <message>
      <source>Bands round the kept samples; take more and set again to widen them</source>
      <translation>Bänder um die behaltenen Proben; weitere nehmen und neu setzen weitet sie</translation>
    </message>
    <message>
      <source>Presets…</source>
      <translation>Vorgaben …</translation>
    </message>
    <message>
      <source>Save as a preset</source>
      <translation>Als Vorgabe sichern</translation>
    </message>
    <message>
      <source>Name</source>
      <translation>Name</translation>
    </message>
    <message>
      <source>Import a preset</source>
      <translation>Eine Vorgabe importieren</translation>
    </message>
    <message>
      <source>Presets (*.json)</source>
      <translation>Vorgaben (*.json)</translation>
    </message>
    <message>
      <source>Export as a preset</source>
      <translation>Als Vorgabe exportieren</translation>
    </message>
    <message>
      <source>Hue band</source>
      <translation>Farbtonband</translation>
    </message>
    <message>
      <source>On</source>
      <translation>Ein</translation>
    </message>
    <message>
      <source>on or off</source>
      <translation>ein oder aus</translation>
    </message>
    <message>
      <source>Full range</source>
      <translation>Voller Bereich</translation>
    </message>
    <message>
      <source>Falloff shape</source>
      <translation>Form des Auslaufs</translation>
    </message>
    <message>
      <source>Shape of the falloff</source>
      <translation>Form des Auslaufs</translation>
    </message>
    <message>
      <source>falloff shape</source>
      <translation>Form des Auslaufs</translation>
    </message>
    <message>
      <source>falloff bend</source>
      <translation>Biegung des Auslaufs</translation>
    </message>
    <message>
      <source>Luminance as the mask</source>
      <translation>Luminanz als Maske</translation>
    </message>
    <message>
      <source>Luminance ramp</source>
      <translation>Luminanzrampe</translation>
    </message>
    <message>
      <source>Inverse ramp</source>
      <translation>Umgekehrte Rampe</translation>
    </message>
    <message>
      <source>{active} band {what}</source>
      <translation>Band {active}: {what}</translation>
    </message>
    <message>
      <source>{active} band</source>
      <translation>Band: {active}</translation>
    </message>
    <message>
      <source>Luminance</source>
      <translation>Luminanz</translation>
    </message>
    <message>
      <source>Red</source>
      <translation>Rot</translation>
    </message>
    <message>
      <source>Green</source>
      <translation>Grün</translation>
    </message>
    <message>
      <source>Blue</source>
      <translation>Blau</translation>
    </message>
    <message>
      <source>Hue shift</source>
      <translation>Farbton verschieben</translation>
    </message>
    <message>
      <source>Saturation</source>
      <translation>Sättigung</translation>
    </message>
    <message>
      <source>Lightness</source>
      <translation>Helligkeit</translation>
    </message>
    <message>
      <source>Which curve</source>
      <translation>Welche Kurve</translation>
    </message>
    <message>
      <source>Curve</source>
      <translation>Kurve</translation>
    </message>
    <message>
      <source>In</source>
      <translation>Anfang</translation>
    </message>
    <message>
      <source>Out</source>
      <translation>Ende</translation>
    </message>
    <message>
      <source>Curve over hue</source>
      <translation>Kurve über dem Farbton</translation>
    </message>
    <message>
      <source>At hue</source>
      <translation>Bei Farbton</translation>
    </message>
    <message>
      <source>Value</source>
      <translation>Wert</translation>
    </message>
    <message>
      <source>Hue</source>
      <translation>Farbton</translation>
    </message>
    <message>
      <source>{title} of shadows, midtones, highlights</source>
      <translation>{title} von Schatten, Mitteltönen, Lichtern</translation>
    </message>
    <message>
      <source>Balance of {name}</source>
      <translation>Balance: {name}</translation>
    </message>
    <message>
      <source>Reset the edge</source>
      <translation>Rand zurücksetzen</translation>
    </message>
    <message>
      <source>Specks and holes</source>
      <translation>Flecken und Löcher</translation>
    </message>
    <message>
      <source>Outline</source>
      <translation>Umriss</translation>
    </message>
    <message>
      <source>Levels of the mask</source>
      <translation>Tonwerte der Maske</translation>
    </message>
    <message>
      <source>Fine edges</source>
      <translation>Feine Kanten</translation>
    </message>
    <message>
      <source>Show its band</source>
      <translation>Ihren Streifen zeigen</translation>
    </message>
    <message>
      <source>Marks in the view Mask where hair and fringe are worked out</source>
      <translation>Markiert in der Ansicht „Maske“, wo Haare und Fransen ausgerechnet werden</translation>
    </message>
    <message>
      <source>Fringe check</source>
      <translation>Saumprüfung</translation>
    </message>
    <message>
      <source>Counts the pixels where a rim of the old colour would stay; the view Fringe check marks them</source>
      <translation>Zählt die Pixel, an denen ein Saum der alten Farbe bliebe; die Ansicht „Saumprüfung“ markiert sie</translation>
    </message>
    <message>
      <source>Noise and darkness</source>
      <translation>Rauschen und Dunkelheit</translation>
    </message>
    <message>
      <source>Over time</source>
      <translation>Über die Zeit</translation>
    </message>
    <message>
      <source>Counting…</source>
      <translation>Es wird gezählt …</translation>
    </message>
    <message>
      <source>Islands</source>
      <translation>Inseln</translation>
    </message>
    <message>
      <source>Pieces of the mask that hang together; when it is right, only those that are wanted are left</source>
      <translation>Zusammenhängende Stücke der Maske; stimmt es, sind nur die gewünschten übrig</translation>
    </message>
    <message>
      <source>Click an island in the picture to remove it, click its place again to bring it back</source>
      <translation>Eine Insel im Bild anklicken, um sie zu entfernen, ihre Stelle noch einmal, um sie zurückzuholen</translation>
    </message>
    <message>
      <source>Point at</source>
      <translation>Zeigen auf</translation>
    </message>
    <message>
      <source>List the islands by size</source>
      <translation>Die Inseln nach Größe auflisten</translation>
    </message>
    <message>
      <source>List islands</source>
      <translation>Inseln auflisten</translation>
    </message>
    <message>
      <source>Keep only these</source>
      <translation>Nur diese behalten</translation>
    </message>
    <message>
      <source>Remove</source>
      <translation>Entfernen</translation>
    </message>
    <message>
      <source>Restore all</source>
      <translation>Alle zurückholen</translation>
    </message>
    <message>
      <source>Keeps only the chosen island; with none chosen, the largest</source>
      <translation>Behält nur die gewählte Insel; ist keine gewählt, die größte</translation>
    </message>
    <message>
      <source>Removes the chosen islands; with none chosen, all but the largest</source>
      <translation>Entfernt die gewählten Inseln; ist keine gewählt, alle außer der größten</translation>
    </message>
    <message>
      <source>Brings all islands back</source>
      <translation>Holt alle Inseln zurück</translation>
    </message>
    <message>
      <source>Islands by size</source>
      <translation>Inseln nach Größe</translation>
    </message>
    <message>
      <source>{number}:  {area} px  at {x:.0f}, {y:.0f}</source>
      <translation>{number}:  {area} px  bei {x:.0f}, {y:.0f}</translation>
    </message>
    <message>
      <source>Hair and fringe are being worked out…</source>
      <translation>Haare und Fransen werden ausgerechnet …</translation>
    </message>
    <message>
      <source>CDL ({endings})</source>
      <translation>CDL ({endings})</translation>
    </message>
    <message>
      <source>Lookup tables ({endings})</source>
      <translation>Farbtabellen ({endings})</translation>
    </message>
    <message>
      <source>Choose a table…</source>
      <translation>Eine Tabelle wählen …</translation>
    </message>
    <message>
      <source>Read…</source>
      <translation>Lesen …</translation>
    </message>
    <message>
      <source>Write…</source>
      <translation>Schreiben …</translation>
    </message>
    <message>
      <source>Take slope, offset, power and saturation from a .cdl, .ccc or .cc file</source>
      <translation>Slope, Offset, Power und Sättigung aus einer .cdl-, .ccc- oder .cc-Datei nehmen</translation>
    </message>
    <message>
      <source>Write them as a .cdl, .ccc or .cc file</source>
      <translation>Sie als .cdl-, .ccc- oder .cc-Datei schreiben</translation>
    </message>
    <message>
      <source>Read a CDL</source>
      <translation>Eine CDL lesen</translation>
    </message>
    <message>
      <source>Which of them?</source>
      <translation>Welche davon?</translation>
    </message>
    <message>
      <source>Write the CDL</source>
      <translation>Die CDL schreiben</translation>
    </message>
    <message>
      <source>A lookup table (.cube, .clf) over sRGB-coded values</source>
      <translation>Eine Farbtabelle (.cube, .clf) über sRGB-kodierte Werte</translation>
    </message>
    <message>
      <source>No table</source>
      <translation>Keine Tabelle</translation>
    </message>
    <message>
      <source>Look up in a table</source>
      <translation>In einer Tabelle nachschlagen</translation>
    </message>
    <message>
      <source>Light: found</source>
      <translation>Licht: gefunden</translation>
    </message>
    <message>
      <source>Light: as it is</source>
      <translation>Licht: wie es ist</translation>
    </message>
    <message>
      <source>Light</source>
      <translation>Licht</translation>
    </message>
    <message>
      <source>On pictures in other light than the one picked on, that light is found and divided out before measuring</source>
      <translation>Auf Bildern in anderem Licht als dem, in dem gewählt wurde, wird es gefunden und vor dem Messen herausgerechnet</translation>
    </message>
    <message>
      <source>by hand…</source>
      <translation>von Hand…</translation>
    </message>
    <message>
      <source>Light: {gains}</source>
      <translation>Licht: {gains}</translation>
    </message>
    <message>
      <source>Red, green and blue, times the light of the picture picked on:</source>
      <translation>Rot, Grün und Blau, mal das Licht des Bildes, auf dem gewählt wurde:</translation>
    </message>
    <message>
      <source>Write three numbers of 0.01 to 100 with spaces between them.</source>
      <translation>Drei Zahlen von 0,01 bis 100 schreiben, mit Leerzeichen dazwischen.</translation>
    </message>
    <message>
      <source>Copy {name} to all sieves</source>
      <translation>{name} in alle Siebe kopieren</translation>
    </message>
    <message>
      <source>Stroke</source>
      <translation>Strich</translation>
    </message>
    <message>
      <source>Width of a scribbled sample</source>
      <translation>Breite einer gekritzelten Probe</translation>
    </message>
    <message>
      <source>New pick</source>
      <translation>Neu</translation>
    </message>
    <message>
      <source>A click replaces all samples</source>
      <translation>Ein Klick ersetzt alle Proben</translation>
    </message>
    <message>
      <source>Keep</source>
      <translation>Behalten</translation>
    </message>
    <message>
      <source>A click adds a keep sample (Shift+click)</source>
      <translation>Ein Klick fügt eine Behalten-Probe hinzu (Umschalt+Klick)</translation>
    </message>
    <message>
      <source>Drop</source>
      <translation>Weglassen</translation>
    </message>
    <message>
      <source>A click adds a drop sample (Ctrl+click)</source>
      <translation>Ein Klick fügt eine Weglassen-Probe hinzu (Strg+Klick)</translation>
    </message>
    <message>
      <source>Point</source>
      <translation>Punkt</translation>
    </message>
    <message>
      <source>Click; drag outwards to widen the tolerance</source>
      <translation>Klicken; nach außen ziehen weitet die Toleranz</translation>
    </message>
    <message>
      <source>Box</source>
      <translation>Kasten</translation>
    </message>
    <message>
      <source>Drag a box: its main tones together</source>
      <translation>Einen Kasten ziehen: seine Haupttöne zusammen</translation>
    </message>
    <message>
      <source>Scribble over a textured thing: its main tones together</source>
      <translation>Über ein strukturiertes Ding kritzeln: seine Haupttöne zusammen</translation>
    </message>
    <message>
      <source>Draw loosely round a thing: samples that hold it, and not what is outside, are found</source>
      <translation>Locker um ein Ding zeichnen: Gefunden werden Proben, die es halten und nicht, was außen ist</translation>
    </message>
    <message>
      <source>Sample size: {size} px</source>
      <translation>Probengröße: {size} px</translation>
    </message>
    <message>
      <source>Sample size</source>
      <translation>Probengröße</translation>
    </message>
    <message>
      <source>Side of the square whose mean is taken</source>
      <translation>Seite des Quadrats, dessen Mittelwert genommen wird</translation>
    </message>
    <message>
      <source>Samples</source>
      <translation>Proben</translation>
    </message>
    <message>
      <source>The tick switches a sample on and off, F2 renames it, Delete removes it. With none chosen, the settings below apply to all</source>
      <translation>Das Häkchen schaltet eine Probe ein und aus, F2 benennt sie um, Entf entfernt sie. Ist keine gewählt, gelten die Werte unten für alle</translation>
    </message>
    <message>
      <source>Here only</source>
      <translation>Nur hier</translation>
    </message>
    <message>
      <source>More</source>
      <translation>Mehr</translation>
    </message>
    <message>
      <source>On: the sample takes only the piece at its place. Off: its colour counts wherever it lies in the picture (R)</source>
      <translation>Ein: Die Probe nimmt nur das Stück an ihrer Stelle. Aus: Ihre Farbe zählt, wo immer sie im Bild liegt (R)</translation>
    </message>
    <message>
      <source>Remove the chosen samples (Delete)</source>
      <translation>Die gewählten Proben entfernen (Entf)</translation>
    </message>
    <message>
      <source>Sample again from this frame</source>
      <translation>Proben auf diesem Bild neu nehmen</translation>
    </message>
    <message>
      <source>Swap keep and drop</source>
      <translation>Behalten und Weglassen tauschen</translation>
    </message>
    <message>
      <source>Remove all samples</source>
      <translation>Alle Proben entfernen</translation>
    </message>
    <message>
      <source>The colours of the same places as they are on this frame</source>
      <translation>Die Farben derselben Stellen, wie sie auf diesem Bild sind</translation>
    </message>
    <message>
      <source>Clear samples</source>
      <translation>Proben leeren</translation>
    </message>
    <message>
      <source>Tolerance</source>
      <translation>Toleranz</translation>
    </message>
    <message>
      <source>Set all samples</source>
      <translation>Alle Proben setzen</translation>
    </message>
    <message>
      <source>What is set here goes to every sample, not only to the one that is named above</source>
      <translation>Was hier gesetzt wird, gilt für jede Probe, nicht nur für die oben genannte</translation>
    </message>
    <message>
      <source>Surface</source>
      <translation>Oberfläche</translation>
    </message>
    <message>
      <source>How colours are compared</source>
      <translation>Wie Farben verglichen werden</translation>
    </message>
    <message>
      <source>Compare by {name}</source>
      <translation>Nach {name}</translation>
    </message>
    <message>
      <source>Compare by</source>
      <translation>Vergleichen nach</translation>
    </message>
    <message>
      <source>Surface: the same thing, however it is lit. Colour: exactly this colour. The others: that one measure</source>
      <translation>Oberfläche: dasselbe Ding, gleich wie beleuchtet. Farbe: genau diese Farbe. Die anderen: dieses eine Maß</translation>
    </message>
    <message>
      <source>Compare by {comparison}</source>
      <translation>Vergleichen nach: {comparison}</translation>
    </message>
    <message>
      <source>Drop rule</source>
      <translation>Weglass-Regel</translation>
    </message>
    <message>
      <source>What a drop sample takes: all that lies nearer to it than to any keep sample, or all within its tolerance</source>
      <translation>Was eine Weglassen-Probe nimmt: alles, was ihr näher liegt als jeder Behalten-Probe, oder alles innerhalb ihrer Toleranz</translation>
    </message>
    <message>
      <source>Shape of the falloff, from full to nothing</source>
      <translation>Form des Auslaufs, von voll zu nichts</translation>
    </message>
    <message>
      <source>Finds tolerance, falloff, shading and gloss that tell keep and drop samples apart best</source>
      <translation>Findet Toleranz, Auslauf, Schattierung und Glanz, die Behalten- und Weglassen-Proben am besten unterscheiden</translation>
    </message>
    <message>
      <source>Fit to samples</source>
      <translation>An Proben anpassen</translation>
    </message>
    <message>
      <source>What is measured</source>
      <translation>Was gemessen wird</translation>
    </message>
    <message>
      <source>Measure on: {words}{words2}</source>
      <translation>Messen auf: {words}{words2}</translation>
    </message>
    <message>
      <source>Measure on</source>
      <translation>Messen auf</translation>
    </message>
    <message>
      <source>The colours that samples are compared with: those of the original, of the result so far, or of another picture</source>
      <translation>Die Farben, mit denen Proben verglichen werden: die des Originals, des Ergebnisses bis hier oder eines anderen Bildes</translation>
    </message>
    <message>
      <source>Mask</source>
      <translation>Maske</translation>
    </message>
    <message>
      <source>Reach of a sample</source>
      <translation>Reichweite einer Probe</translation>
    </message>
    <message>
      <source>Switch sample</source>
      <translation>Probe schalten</translation>
    </message>
    <message>
      <source>Rename sample</source>
      <translation>Probe umbenennen</translation>
    </message>
    <message>
      <source>Measure another picture of the same size</source>
      <translation>Ein anderes Bild derselben Größe messen</translation>
    </message>
    <message>
      <source>Covers {whole:.1f} % of the picture</source>
      <translation>Bedeckt {whole:.1f} % des Bildes</translation>
    </message>
    <message>
      <source>Tolerance {whose}</source>
      <translation>Toleranz {whose}</translation>
    </message>
    <message>
      <source>Slope</source>
      <translation>Slope</translation>
    </message>
    <message>
      <source>Offset</source>
      <translation>Offset</translation>
    </message>
    <message>
      <source>Power</source>
      <translation>Power</translation>
    </message>
    <message>
      <source>Brightness of</source>
      <translation>Helligkeit von</translation>
    </message>
    <message>
      <source>Drop: the nearest sample wins</source>
      <translation>Weglassen: die nächste Probe gewinnt</translation>
    </message>
    <message>
      <source>Drop: all within tolerance</source>
      <translation>Weglassen: alles in der Toleranz</translation>
    </message>
    <message>
      <source>Original</source>
      <translation>Original</translation>
    </message>
    <message>
      <source>Result so far</source>
      <translation>Ergebnis bis hier</translation>
    </message>
    <message>
      <source>Another picture…</source>
      <translation>Ein anderes Bild …</translation>
    </message>
    <message>
      <source>, here only</source>
      <translation>, nur hier</translation>
    </message>
    <message>
      <source>of all {count} samples</source>
      <translation>aller {count} Proben</translation>
    </message>
    <message>
      <source>of {count} samples</source>
      <translation>von {count} Proben</translation>
    </message>
    <message>
      <source>of {name}</source>
      <translation>von {name}</translation>
    </message>
    <message>
      <source>X</source>
      <translation>X</translation>
    </message>
    <message>
      <source>Y</source>
      <translation>Y</translation>
    </message>
    <message>
      <source>Width</source>
      <translation>Breite</translation>
    </message>
    <message>
      <source>Height</source>
      <translation>Höhe</translation>
    </message>
    <message>
      <source>Angle</source>
      <translation>Winkel</translation>
    </message>
  </context>
  <context>
    <name>panels</name>
    <message>
      <source>Drag the region's middle, its edges (full lines) or its falloff (dotted lines); drag outside it to light a spot up on the picture.
Double-click shows it large in the second pane.
Keys: Left and Right turn the hue band, Up and Down move the saturation band (Shift ×10, Alt ÷10); Delete switches both off.</source>
      <translation>Die Mitte des Bereichs, seine Ränder (volle Linien) oder seinen Auslauf (gepunktete Linien) ziehen; außerhalb ziehen beleuchtet eine Stelle im Bild.
Doppelklick zeigt es groß in der zweiten Ansicht.
Tasten: Links und Rechts drehen das Farbtonband, Auf und Ab bewegen das Sättigungsband (Umschalt ×10, Alt ÷10); Entf schaltet beide aus.</translation>
    </message>
    <message>
      <source>Colour field</source>
      <translation>Farbfeld</translation>
    </message>
    <message>
      <source>Waveform</source>
      <translation>Wellenform</translation>
    </message>
    <message>
      <source>RGB parade</source>
      <translation>RGB-Parade</translation>
    </message>
    <message>
      <source>Vectorscope</source>
      <translation>Vektorskop</translation>
    </message>
    <message>
      <source>Histogram</source>
      <translation>Histogramm</translation>
    </message>
    <message>
      <source>Of the result</source>
      <translation>Vom Ergebnis</translation>
    </message>
    <message>
      <source>Of the original</source>
      <translation>Vom Original</translation>
    </message>
    <message>
      <source>Inside the mask</source>
      <translation>Innerhalb der Maske</translation>
    </message>
    <message>
      <source>Scope</source>
      <translation>Messinstrument</translation>
    </message>
    <message>
      <source>Values are sRGB-coded, Rec. 709 luma; the dashed line of the vectorscope is where skin tones lie</source>
      <translation>Werte sind sRGB-kodiert, Luma nach Rec. 709; auf der gestrichelten Linie des Vektorskops liegen Hauttöne</translation>
    </message>
    <message>
      <source>Scope of</source>
      <translation>Messen an</translation>
    </message>
    <message>
      <source>What is counted</source>
      <translation>Was gezählt wird</translation>
    </message>
    <message>
      <source>Put this scope away</source>
      <translation>Dieses Instrument schließen</translation>
    </message>
    <message>
      <source>Add a scope</source>
      <translation>Instrument dazu</translation>
    </message>
    <message>
      <source>Own window</source>
      <translation>Eigenes Fenster</translation>
    </message>
    <message>
      <source>A window that can be as large as wanted, on any screen</source>
      <translation>Ein Fenster, so groß wie gewünscht, auf jedem Bildschirm</translation>
    </message>
    <message>
      <source>Per cent</source>
      <translation>Prozent</translation>
    </message>
    <message>
      <source>10 bit codes</source>
      <translation>10-Bit-Werte</translation>
    </message>
    <message>
      <source>Lines of the scopes</source>
      <translation>Linien der Instrumente</translation>
    </message>
    <message>
      <source>What the lines are named by: per cent of white, or codes of 64 to 940</source>
      <translation>Wonach die Linien heißen: Prozent von Weiß, oder Werte von 64 bis 940</translation>
    </message>
    <message>
      <source>opposite</source>
      <translation>Gegenteil</translation>
    </message>
    <message>
      <source>the rest of {names}</source>
      <translation>das Übrige von {names}</translation>
    </message>
    <message>
      <source>opposite of {names}</source>
      <translation>Gegenteil von {names}</translation>
    </message>
    <message>
      <source>same as {names}</source>
      <translation>gleich wie {names}</translation>
    </message>
    <message>
      <source>Add to it</source>
      <translation>Dazunehmen</translation>
    </message>
    <message>
      <source>Subtract from it</source>
      <translation>Davon abziehen</translation>
    </message>
    <message>
      <source>Only where it is too</source>
      <translation>Nur wo sie auch ist</translation>
    </message>
    <message>
      <source>Copied {what}</source>
      <translation>Kopiert: {what}</translation>
    </message>
    <message>
      <source>the whole stack</source>
      <translation>der ganze Stapel</translation>
    </message>
    <message>
      <source>Save take</source>
      <translation>Fassung sichern</translation>
    </message>
    <message>
      <source>Name of this take:</source>
      <translation>Name dieser Fassung:</translation>
    </message>
    <message>
      <source>Take {count}</source>
      <translation>Fassung {count}</translation>
    </message>
    <message>
      <source>Own pick</source>
      <translation>Eigene Auswahl</translation>
    </message>
    <message>
      <source>Same as</source>
      <translation>Gleich wie</translation>
    </message>
    <message>
      <source>Opposite of</source>
      <translation>Gegenteil von</translation>
    </message>
    <message>
      <source>The rest of</source>
      <translation>Das Übrige von</translation>
    </message>
    <message>
      <source>Unlink (keep a copy)</source>
      <translation>Lösen (eine Kopie behalten)</translation>
    </message>
    <message>
      <source>Save the stack as a take…</source>
      <translation>Den Stapel als Fassung sichern …</translation>
    </message>
    <message>
      <source>Switch to this take</source>
      <translation>Zu dieser Fassung wechseln</translation>
    </message>
    <message>
      <source>Compare side by side</source>
      <translation>Nebeneinander vergleichen</translation>
    </message>
    <message>
      <source>Compare by wipe</source>
      <translation>Mit Blende vergleichen</translation>
    </message>
    <message>
      <source>Remove it</source>
      <translation>Sie entfernen</translation>
    </message>
    <message>
      <source>New group</source>
      <translation>Neue Gruppe</translation>
    </message>
    <message>
      <source>Name of the group:</source>
      <translation>Name der Gruppe:</translation>
    </message>
    <message>
      <source>Group {count}</source>
      <translation>Gruppe {count}</translation>
    </message>
    <message>
      <source>Strength of the group, %:</source>
      <translation>Stärke der Gruppe, %:</translation>
    </message>
    <message>
      <source>No group</source>
      <translation>Keine Gruppe</translation>
    </message>
    <message>
      <source>In {name}</source>
      <translation>In {name}</translation>
    </message>
    <message>
      <source>In a new group…</source>
      <translation>In eine neue Gruppe …</translation>
    </message>
    <message>
      <source>On</source>
      <translation>Ein</translation>
    </message>
    <message>
      <source>Strength {strength:.0f} %…</source>
      <translation>Stärke {strength:.0f} % …</translation>
    </message>
    <message>
      <source>Dissolve</source>
      <translation>Auflösen</translation>
    </message>
    <message>
      <source>Stack ↓</source>
      <translation>Stapel ↓</translation>
    </message>
    <message>
      <source>The sieves of this picture. The picture falls through them from top to bottom. Drag the border for the full list</source>
      <translation>Die Siebe dieses Bildes. Das Bild fällt von oben nach unten hindurch. Den Rand ziehen zeigt die volle Liste</translation>
    </message>
    <message>
      <source>Stack of sieves</source>
      <translation>Stapel der Siebe</translation>
    </message>
    <message>
      <source>The picture falls through these from top to bottom; drag to reorder, the tick switches a sieve, F2 renames it</source>
      <translation>Das Bild fällt von oben nach unten hindurch; ziehen ordnet um, das Häkchen schaltet ein Sieb, F2 benennt es um</translation>
    </message>
    <message>
      <source>Mask: own pick</source>
      <translation>Maske: eigene Auswahl</translation>
    </message>
    <message>
      <source>A new sieve; it changes nothing until you move something (Ctrl+Shift+N)</source>
      <translation>Ein neues Sieb; es ändert nichts, bis etwas bewegt wird (Strg+Umschalt+N)</translation>
    </message>
    <message>
      <source>Remove this sieve</source>
      <translation>Dieses Sieb entfernen</translation>
    </message>
    <message>
      <source>Move up the stack</source>
      <translation>Im Stapel nach oben</translation>
    </message>
    <message>
      <source>Move down the stack</source>
      <translation>Im Stapel nach unten</translation>
    </message>
    <message>
      <source>The mask of {names} is made from {name}. Remove {name}? Masks that are the same or its opposite keep a copy; where it is one of several, the others go on without it.</source>
      <translation>Die Maske von {names} ist aus {name} gemacht. {name} entfernen? Masken, die gleich oder sein Gegenteil sind, behalten eine Kopie; wo es eines von mehreren ist, gehen die anderen ohne es weiter.</translation>
    </message>
    <message>
      <source>Switch sieve on</source>
      <translation>Sieb einschalten</translation>
    </message>
    <message>
      <source>Switch sieve off</source>
      <translation>Sieb ausschalten</translation>
    </message>
    <message>
      <source>Rename sieve</source>
      <translation>Sieb umbenennen</translation>
    </message>
    <message>
      <source>in {name}{off}</source>
      <translation>in {name}{off}</translation>
    </message>
    <message>
      <source> (off)</source>
      <translation> (aus)</translation>
    </message>
    <message>
      <source>own pick</source>
      <translation>eigene Auswahl</translation>
    </message>
    <message>
      <source>Mask</source>
      <translation>Maske</translation>
    </message>
    <message>
      <source>Mask: {source}</source>
      <translation>Maske: {source}</translation>
    </message>
    <message>
      <source>Where the mask of this sieve comes from, live: now {source}</source>
      <translation>Woher die Maske dieses Siebes kommt, laufend: jetzt {source}</translation>
    </message>
    <message>
      <source>The box switches it, F2 renames it, drag to reorder</source>
      <translation>Das Kästchen schaltet es, F2 benennt es um, ziehen ordnet um</translation>
    </message>
    <message>
      <source>A surface that holds {share} of the picture. Click to pick it, Ctrl+click for a new sieve</source>
      <translation>Eine Oberfläche, die {share} des Bildes hält. Klick wählt sie aus, Strg+Klick für ein neues Sieb</translation>
    </message>
    <message>
      <source>Surface {number}, {share} of the picture</source>
      <translation>Oberfläche {number}, {share} des Bildes</translation>
    </message>
    <message>
      <source>Surfaces</source>
      <translation>Oberflächen</translation>
    </message>
    <message>
      <source>Main surfaces of the picture, found by themselves: point at one for its mask, click it to pick it</source>
      <translation>Hauptoberflächen des Bildes, von selbst gefunden: Zeigen zeigt ihre Maske, ein Klick wählt sie aus</translation>
    </message>
    <message>
      <source>Tray</source>
      <translation>Ablage</translation>
    </message>
    <message>
      <source>{source}{shared}
A click shows it, Ctrl+click chooses several</source>
      <translation>{source}{shared}
Ein Klick zeigt es, Strg+Klick wählt mehrere</translation>
    </message>
    <message>
      <source>↔ has the shared stack</source>
      <translation>↔ hat den gemeinsamen Stapel</translation>
    </message>
    <message>
      <source>Paste sieve to the chosen</source>
      <translation>Sieb in die gewählten einfügen</translation>
    </message>
    <message>
      <source>Paste sieve, fit tolerances to each</source>
      <translation>Sieb einfügen, Toleranzen an jedes anpassen</translation>
    </message>
    <message>
      <source>Own stack for each</source>
      <translation>Eigener Stapel für jedes</translation>
    </message>
    <message>
      <source>One stack shared by the chosen</source>
      <translation>Ein Stapel für die gewählten gemeinsam</translation>
    </message>
    <message>
      <source>Choose all</source>
      <translation>Alle wählen</translation>
    </message>
    <message>
      <source>Close the chosen</source>
      <translation>Die gewählten schließen</translation>
    </message>
    <message>
      <source>Add a sieve preset to the chosen</source>
      <translation>Den gewählten eine Siebvorgabe geben</translation>
    </message>
    <message>
      <source>{names}: changes are not saved.</source>
      <translation>{names}: Änderungen sind nicht gesichert.</translation>
    </message>
  </context>
  <context>
    <name>project</name>
    <message>
      <source>The clipboard holds no sieve: copy one first.</source>
      <translation>Die Zwischenablage enthält kein Sieb: zuerst eines kopieren.</translation>
    </message>
    <message>
      <source>The clipboard holds a sieve of a newer version of Amber Sieve: update the program to paste it.</source>
      <translation>Die Zwischenablage enthält ein Sieb einer neueren Version von Amber Sieve: Bitte das Programm aktualisieren.</translation>
    </message>
    <message>
      <source>Sieve {count}</source>
      <translation>Sieb {count}</translation>
    </message>
    <message>
      <source>Sieve 1</source>
      <translation>Sieb 1</translation>
    </message>
    <message>
      <source> and </source>
      <translation> und </translation>
    </message>
    <message>
      <source>The mask of {name} cannot be made from {names}: they would lean on each other in a circle.</source>
      <translation>Die Maske von {name} kann nicht aus {names} gemacht werden: Sie würden sich im Kreis aufeinander stützen.</translation>
    </message>
    <message>
      <source>{name} copy</source>
      <translation>{name} Kopie</translation>
    </message>
    <message>
      <source>{name} leftovers</source>
      <translation>{name} Reste</translation>
    </message>
    <message>
      <source>The rest</source>
      <translation>Das Übrige</translation>
    </message>
    <message>
      <source>Open</source>
      <translation>Öffnen</translation>
    </message>
    <message>
      <source>what is open</source>
      <translation>was offen ist</translation>
    </message>
    <message>
      <source>what was open</source>
      <translation>was offen war</translation>
    </message>
    <message>
      <source>Skin tones</source>
      <translation>Hauttöne</translation>
    </message>
    <message>
      <source>Skies</source>
      <translation>Himmel</translation>
    </message>
    <message>
      <source>Foliage</source>
      <translation>Laub</translation>
    </message>
    <message>
      <source>Neutrals</source>
      <translation>Neutrale Töne</translation>
    </message>
    <message>
      <source>Warm</source>
      <translation>Warm</translation>
    </message>
    <message>
      <source>Cool</source>
      <translation>Kühl</translation>
    </message>
    <message>
      <source>Shadows</source>
      <translation>Schatten</translation>
    </message>
    <message>
      <source>Midtones</source>
      <translation>Mitteltöne</translation>
    </message>
    <message>
      <source>Highlights</source>
      <translation>Lichter</translation>
    </message>
    <message>
      <source>a preset</source>
      <translation>eine Vorgabe</translation>
    </message>
    <message>
      <source>{path} is not a preset of Amber Sieve: its fields are not what they should be. Choose another file.</source>
      <translation>{path} ist keine Vorgabe von Amber Sieve: Ihre Felder sind nicht, was sie sein sollten. Bitte eine andere Datei wählen.</translation>
    </message>
    <message>
      <source>{path} is not a preset of Amber Sieve ({complaint}): choose another file.</source>
      <translation>{path} ist keine Vorgabe von Amber Sieve ({complaint}): Bitte eine andere Datei wählen.</translation>
    </message>
    <message>
      <source>As it was</source>
      <translation>Wie es war</translation>
    </message>
    <message>
      <source>its sieves are off, switch them on one by one</source>
      <translation>ihre Siebe sind aus, bitte eines nach dem anderen einschalten</translation>
    </message>
    <message>
      <source>its stack is the take «As it was»</source>
      <translation>ihr Stapel ist die Fassung «Wie es war»</translation>
    </message>
    <message>
      <source>The program has ended {falls} times with this work open, so {how}.</source>
      <translation>Das Programm hat {falls} Mal mit dieser offenen Arbeit geendet, also: {how}.</translation>
    </message>
    <message>
      <source>Unsaved work cannot be kept in {parent} ({strerror}): save it yourself.</source>
      <translation>Ungesicherte Arbeit kann in {parent} nicht aufbewahrt werden ({strerror}): Bitte selbst sichern.</translation>
    </message>
    <message>
      <source>kept work</source>
      <translation>aufbewahrte Arbeit</translation>
    </message>
    <message>
      <source>a preset of a sieve</source>
      <translation>eine Siebvorgabe</translation>
    </message>
    <message>
      <source>{path} was made by a newer version of Amber Sieve: update the program to use it.</source>
      <translation>{path} stammt von einer neueren Version von Amber Sieve: Bitte das Programm aktualisieren.</translation>
    </message>
    <message>
      <source>{path} is not a preset of a sieve ({complaint}): choose another file.</source>
      <translation>{path} ist keine Siebvorgabe ({complaint}): Bitte eine andere Datei wählen.</translation>
    </message>
    <message>
      <source>the whole file</source>
      <translation>die ganze Datei</translation>
    </message>
    <message>
      <source>{place}: at most {most} are possible</source>
      <translation>{place}: höchstens {most} sind möglich</translation>
    </message>
    <message>
      <source>{path} is not {what}: it is too large. Open another file.</source>
      <translation>{path} ist nicht {what}: zu groß. Bitte eine andere Datei öffnen.</translation>
    </message>
    <message>
      <source>{path} could not be read ({strerror}): check its permissions.</source>
      <translation>{path} konnte nicht gelesen werden ({strerror}): Bitte die Zugriffsrechte prüfen.</translation>
    </message>
    <message>
      <source>{path} is not {what}: it is not valid JSON. Open another file or restore a copy.</source>
      <translation>{path} ist nicht {what}: kein gültiges JSON. Bitte eine andere Datei öffnen oder eine Kopie wiederherstellen.</translation>
    </message>
    <message>
      <source>{path} is not {what}: it should hold one JSON object. Open another file.</source>
      <translation>{path} ist nicht {what}: Es sollte ein JSON-Objekt enthalten. Bitte eine andere Datei öffnen.</translation>
    </message>
    <message>
      <source>a project</source>
      <translation>ein Projekt</translation>
    </message>
    <message>
      <source>{path} is not a project of Amber Sieve: it has no version number. Open another file.</source>
      <translation>{path} ist kein Projekt von Amber Sieve: Es hat keine Versionsnummer. Bitte eine andere Datei öffnen.</translation>
    </message>
    <message>
      <source>{path} was made by a newer version of Amber Sieve (file version {version}, this one reads up to {newest}): update the program to open it.</source>
      <translation>{path} stammt von einer neueren Version von Amber Sieve (Dateiversion {version}, diese liest bis {newest}): Bitte das Programm aktualisieren.</translation>
    </message>
    <message>
      <source>{path} holds more than can be worked on ({words}): correct it or open another file.</source>
      <translation>{path} enthält mehr, als sich bearbeiten lässt ({words}): Bitte berichtigen oder eine andere Datei öffnen.</translation>
    </message>
    <message>
      <source>{path} has a wrong field ({complaint}): correct it or open another file.</source>
      <translation>{path} hat ein falsches Feld ({complaint}): Bitte berichtigen oder eine andere Datei öffnen.</translation>
    </message>
    <message>
      <source>{path} is not a project of Amber Sieve: its fields are not what they should be. Open another file.</source>
      <translation>{path} ist kein Projekt von Amber Sieve: Seine Felder sind nicht, was sie sein sollten. Bitte eine andere Datei öffnen.</translation>
    </message>
    <message>
      <source>{path} has a key that does not fit ({words}): correct it or open another file.</source>
      <translation>{path} hat einen Keyframe, der nicht passt ({words}): Bitte berichtigen oder eine andere Datei öffnen.</translation>
    </message>
    <message>
      <source>A project cannot be saved as {name}: end its name in {ending}.</source>
      <translation>Ein Projekt lässt sich nicht als {name} sichern: Bitte den Namen auf {ending} enden lassen.</translation>
    </message>
    <message>
      <source>Amber Sieve project</source>
      <translation>Projekt von Amber Sieve</translation>
    </message>
    <message>
      <source>The name of a preset has 1 to {most} characters, this one {count}: give another name.</source>
      <translation>Der Name einer Vorgabe hat 1 bis {most} Zeichen, dieser {count}: Bitte einen anderen Namen geben.</translation>
    </message>
    <message>
      <source>What is found on the picture cannot be keyed: set it by hand first.</source>
      <translation>Was auf dem Bild gefunden wird, kann keine Keyframes haben: zuerst von Hand setzen.</translation>
    </message>
    <message>
      <source>a key of {path}: {words}</source>
      <translation>ein Keyframe von {path}: {words}</translation>
    </message>
    <message>
      <source>there is nothing called {path} that could change from frame to frame</source>
      <translation>es gibt nichts namens {path}, das sich von Bild zu Bild ändern könnte</translation>
    </message>
  </context>
  <context>
    <name>render</name>
    <message>
      <source>with less chroma</source>
      <translation>mit weniger Chroma</translation>
    </message>
    <message>
      <source>mean moved {moved:.1f} ΔE2000 · out of gamut {outside:.1f} %, brought back {back} · texture {texture:.0f} % · banding {banded:.1f} % · rim {rim:.0f} %</source>
      <translation>Mittel um {moved:.1f} ΔE2000 bewegt · außerhalb des Farbumfangs {outside:.1f} %, zurückgeholt {back} · Struktur {texture:.0f} % · Streifen {banded:.1f} % · Saum {rim:.0f} %</translation>
    </message>
    <message>
      <source>{outside:.0f} % out of gamut: less saturation</source>
      <translation>{outside:.0f} % außerhalb des Farbumfangs: weniger Sättigung</translation>
    </message>
    <message>
      <source>Texture is lost: more contrast</source>
      <translation>Struktur geht verloren: mehr Kontrast</translation>
    </message>
    <message>
      <source>Smooth parts may band: add grain</source>
      <translation>Glatte Stellen könnten streifig werden: Korn hinzufügen</translation>
    </message>
    <message>
      <source>A rim of the old colour: follow the edge</source>
      <translation>Ein Saum der alten Farbe: der Kante folgen</translation>
    </message>
    <message>
      <source>{parts} and {parts2}</source>
      <translation>{parts} und {parts2}</translation>
    </message>
    <message numerus="yes">
      <source>what looks like {n} sampled colours</source>
      <comment>what looks like {n} sampled colour</comment>
      <translation>
        <numerusform>was aussieht wie {n} Probenfarbe</numerusform>
        <numerusform>was aussieht wie {n} Probenfarben</numerusform>
      </translation>
    </message>
    <message numerus="yes">
      <source> ({n} of them only where they were taken)</source>
      <comment> ({n} of them only where it was taken)</comment>
      <translation>
        <numerusform> ({n} davon nur, wo sie genommen wurde)</numerusform>
        <numerusform> ({n} davon nur, wo sie genommen wurden)</numerusform>
      </translation>
    </message>
    <message numerus="yes">
      <source>, without what looks like {n} dropped ones</source>
      <comment>, without what looks like {n} dropped one</comment>
      <translation>
        <numerusform>, ohne was aussieht wie {n} weggelassene</numerusform>
        <numerusform>, ohne was aussieht wie {n} weggelassene</numerusform>
      </translation>
    </message>
    <message>
      <source>{name} {away} {corners:g} to {corners2:g}</source>
      <translation>{name} {away} {corners:g} bis {corners2:g}</translation>
    </message>
    <message>
      <source>as much as it is dark</source>
      <translation>so viel, wie es dunkel ist</translation>
    </message>
    <message>
      <source>as much as it is light</source>
      <translation>so viel, wie es hell ist</translation>
    </message>
    <message>
      <source> within </source>
      <translation> innerhalb von </translation>
    </message>
    <message>
      <source>nothing yet</source>
      <translation>noch nichts</translation>
    </message>
    <message>
      <source>everything but {words}</source>
      <translation>alles außer {words}</translation>
    </message>
    <message>
      <source>the same as {others}</source>
      <translation>dasselbe wie {others}</translation>
    </message>
    <message>
      <source>what {others} leave</source>
      <translation>was {others} lassen</translation>
    </message>
    <message>
      <source>«{name}»{off} masks {source}{turned}.</source>
      <translation>«{name}»{off} maskiert {source}{turned}.</translation>
    </message>
    <message>
      <source> (off)</source>
      <translation> (aus)</translation>
    </message>
    <message>
      <source>, turned round</source>
      <translation>, umgekehrt</translation>
    </message>
    <message>
      <source>Measured without this light: red {red:.2f}, green {green:.2f}, blue {blue:.2f} times that of the picture picked on.</source>
      <translation>Gemessen ohne dieses Licht: Rot {red:.2f}, Grün {green:.2f}, Blau {blue:.2f} mal das des Bildes, auf dem gewählt wurde.</translation>
    </message>
    <message>
      <source>Measured without the log curve of a flat picture.</source>
      <translation>Gemessen ohne die Log-Kurve eines flachen Bildes.</translation>
    </message>
    <message>
      <source>{list} found on the picture</source>
      <translation>{list} auf dem Bild gefunden</translation>
    </message>
    <message>
      <source>Its edge: {list}.</source>
      <translation>Sein Rand: {list}.</translation>
    </message>
    <message>
      <source>Areas: {list}.</source>
      <translation>Flächen: {list}.</translation>
    </message>
    <message>
      <source>Laid on it: </source>
      <translation>Darüber liegt: </translation>
    </message>
    <message>
      <source>Inside it: </source>
      <translation>Darin: </translation>
    </message>
    <message>
      <source>It changes nothing inside.</source>
      <translation>Es ändert darin nichts.</translation>
    </message>
    <message>
      <source>Keyed from frame {frames} to {frames2}: {list}.</source>
      <translation>Keyframes von Bild {frames} bis {frames2}: {list}.</translation>
    </message>
    <message>
      <source>blended by {blend}</source>
      <translation>gemischt mit {blend}</translation>
    </message>
    <message>
      <source>at a strength of {strength:g} %</source>
      <translation>mit einer Stärke von {strength:g} %</translation>
    </message>
    <message>
      <source>with {outside:g} % for the rest of the picture</source>
      <translation>mit {outside:g} % für den Rest des Bildes</translation>
    </message>
    <message>
      <source>All of that {list}.</source>
      <translation>All das {list}.</translation>
    </message>
    <message>
      <source>The picture {path} cannot be read here: choose another one to fill with.</source>
      <translation>Das Bild {path} lässt sich hier nicht lesen: Bitte ein anderes zum Füllen wählen.</translation>
    </message>
    <message>
      <source>The lookup table {path} cannot be read here: choose another one.</source>
      <translation>Die Farbtabelle {path} lässt sich hier nicht lesen: Bitte eine andere wählen.</translation>
    </message>
    <message>
      <source>The working space {name} is not known here: choose another one.</source>
      <translation>Der Arbeitsfarbraum {name} ist hier nicht bekannt: Bitte einen anderen wählen.</translation>
    </message>
    <message>
      <source>The display {name} is not known here: choose another one.</source>
      <translation>Die Anzeige {name} ist hier nicht bekannt: Bitte eine andere wählen.</translation>
    </message>
    <message>
      <source>Result</source>
      <translation>Ergebnis</translation>
    </message>
    <message>
      <source>Original</source>
      <translation>Original</translation>
    </message>
    <message>
      <source>Mask</source>
      <translation>Maske</translation>
    </message>
    <message>
      <source>Veil</source>
      <translation>Schleier</translation>
    </message>
    <message>
      <source>Isolate</source>
      <translation>Herausstellen</translation>
    </message>
    <message>
      <source>Cut-out</source>
      <translation>Freisteller</translation>
    </message>
    <message>
      <source>Weak spots</source>
      <translation>Schwachstellen</translation>
    </message>
    <message>
      <source>Fringe check</source>
      <translation>Saumprüfung</translation>
    </message>
    <message>
      <source>Realism check</source>
      <translation>Echtheitsprüfung</translation>
    </message>
    <message>
      <source>Other take</source>
      <translation>Andere Fassung</translation>
    </message>
    <message>
      <source> (only where it was taken)</source>
      <translation> (nur wo sie genommen wurde)</translation>
    </message>
    <message>
      <source>more than can be measured</source>
      <translation>mehr, als sich messen lässt</translation>
    </message>
    <message>
      <source>The {role} sample that decides is {name}{where}, at a distance of {away} by {compare}; its tolerance is {tolerance:g}</source>
      <translation>Es entscheidet die Probe {name} ({role}){where}, im Abstand {away} nach {compare}; ihre Toleranz ist {tolerance:g}</translation>
    </message>
    <message>
      <source>nearer than the keep sample, so it takes this pixel out</source>
      <translation>näher als die Behalten-Probe, also nimmt sie dieses Pixel heraus</translation>
    </message>
    <message>
      <source>farther than the keep sample, so it leaves this pixel in</source>
      <translation>weiter als die Behalten-Probe, also lässt sie dieses Pixel drin</translation>
    </message>
    <message>
      <source>{line}. It is {farther:.1f} {side}.</source>
      <translation>{line}. Sie ist {farther:.1f} {side}.</translation>
    </message>
    <message>
      <source>{line}, so it keeps this pixel. A tolerance under {distance:.1f} would not.</source>
      <translation>{line}, also behält sie dieses Pixel. Eine Toleranz unter {distance:.1f} täte es nicht.</translation>
    </message>
    <message>
      <source>{line}, so it drops this pixel. A tolerance under {distance:.1f} would not.</source>
      <translation>{line}, also lässt sie dieses Pixel weg. Eine Toleranz unter {distance:.1f} täte es nicht.</translation>
    </message>
    <message>
      <source>{line} and it fades over {falloff:g}, so this pixel is in part. A tolerance of {distance:.1f} would hold it wholly.</source>
      <translation>{line} und sie läuft über {falloff:g} aus, also ist dieses Pixel zum Teil drin. Eine Toleranz von {distance:.1f} hielte es ganz.</translation>
    </message>
    <message>
      <source>{line}, so it does not reach this pixel. A tolerance of {distance:.1f} would.</source>
      <translation>{line}, also erreicht sie dieses Pixel nicht. Eine Toleranz von {distance:.1f} täte es.</translation>
    </message>
    <message>
      <source>in the fade of</source>
      <translation>im Auslauf von</translation>
    </message>
    <message>
      <source>, which is inverted</source>
      <translation>, das umgekehrt ist</translation>
    </message>
    <message>
      <source> A band that goes to {value:.0f}{unit} would hold it.</source>
      <translation> Ein Band bis {value:.0f}{unit} hielte es.</translation>
    </message>
    <message>
      <source>Its {name} is {value:.0f}{unit}, {words} the band from {full_from:g} to {full_to:g}{turned}.{reach}</source>
      <translation>{name} ist hier {value:.0f}{unit}, {words} dem Band von {full_from:g} bis {full_to:g}{turned}.{reach}</translation>
    </message>
    <message>
      <source>The mask is the luminance itself here (the ramp).</source>
      <translation>Die Maske ist hier die Luminanz selbst (die Rampe).</translation>
    </message>
    <message>
      <source>takes away</source>
      <translation>nimmt weg</translation>
    </message>
    <message>
      <source>lets through</source>
      <translation>lässt durch</translation>
    </message>
    <message>
      <source>Area {name} {does} {per_cent} here.</source>
      <translation>Fläche {name} {does} {per_cent} hier.</translation>
    </message>
    <message>
      <source>No sample and no band is set, so nothing is picked by colour.</source>
      <translation>Keine Probe und kein Band ist gesetzt, also ist nach Farbe nichts ausgewählt.</translation>
    </message>
    <message>
      <source>The light here is red {red:.2f}, green {green:.2f}, blue {blue:.2f} times that of the picture picked on; it is measured without it.</source>
      <translation>Das Licht ist hier Rot {red:.2f}, Grün {green:.2f}, Blau {blue:.2f} mal das des Bildes, auf dem gewählt wurde; gemessen wird ohne es.</translation>
    </message>
    <message>
      <source>The picture is flat: samples are compared without its log curve.</source>
      <translation>Das Bild ist flach: Proben werden ohne seine Log-Kurve verglichen.</translation>
    </message>
    <message>
      <source>Samples that reach only where they were taken make it {per_cent}; without them it is {without}.</source>
      <translation>Proben, die nur dort reichen, wo sie genommen wurden, machen es {per_cent}; ohne sie ist es {without}.</translation>
    </message>
    <message>
      <source>By colour it is {per_cent}.</source>
      <translation>Nach Farbe ist es {per_cent}.</translation>
    </message>
    <message>
      <source>It does not hang together with a sample, and only what is connected counts: bridging larger gaps may reach it.</source>
      <translation>Es hängt mit keiner Probe zusammen, und nur Zusammenhängendes zählt: größere Lücken überbrücken kann es erreichen.</translation>
    </message>
    <message>
      <source>The mask is inverted: {per_cent}.</source>
      <translation>Die Maske ist umgekehrt: {per_cent}.</translation>
    </message>
    <message>
      <source>The edge makes it {per_cent}</source>
      <translation>Der Rand macht es {per_cent}</translation>
    </message>
    <message>
      <source>wholly in</source>
      <translation>ganz drin</translation>
    </message>
    <message>
      <source>partly in</source>
      <translation>zum Teil drin</translation>
    </message>
    <message>
      <source>Pixel {at}, {at2} is {says}: the mask of {name} is {per_cent} there.</source>
      <translation>Pixel {at}, {at2} ist {says}: Die Maske von {name} ist dort {per_cent}.</translation>
    </message>
    <message>
      <source> and </source>
      <translation> und </translation>
    </message>
    <message>
      <source>Its mask is made from {others}: ask there.</source>
      <translation>Seine Maske ist aus {others} gemacht: dort fragen.</translation>
    </message>
    <message>
      <source>Other sieves' masks are laid on it, or it is turned round.</source>
      <translation>Masken anderer Siebe liegen darüber, oder sie ist umgekehrt.</translation>
    </message>
    <message>
      <source>With that it is {per_cent}.</source>
      <translation>Damit ist es {per_cent}.</translation>
    </message>
    <message>
      <source>Strength is {strength:g} %: so much of the adjustments is laid on.</source>
      <translation>Die Stärke ist {strength:g} %: So viel von den Anpassungen wird aufgelegt.</translation>
    </message>
    <message>
      <source>The rest of the picture gets {outside:g} % of the adjustments.</source>
      <translation>Der Rest des Bildes bekommt {outside:g} % der Anpassungen.</translation>
    </message>
  </context>
  <context>
    <name>stages</name>
    <message>
      <source>its filling</source>
      <translation>seine Füllung</translation>
    </message>
    <message>
      <source>levels of the mask</source>
      <translation>Tonwerte der Maske</translation>
    </message>
    <message>
      <source>all holes filled</source>
      <translation>alle Löcher gefüllt</translation>
    </message>
    <message numerus="yes">
      <source>{n} islands kept alone</source>
      <comment>{n} island kept alone</comment>
      <translation>
        <numerusform>{n} Insel allein behalten</numerusform>
        <numerusform>{n} Inseln allein behalten</numerusform>
      </translation>
    </message>
    <message numerus="yes">
      <source>{n} islands taken out</source>
      <comment>{n} island taken out</comment>
      <translation>
        <numerusform>{n} Insel herausgenommen</numerusform>
        <numerusform>{n} Inseln herausgenommen</numerusform>
      </translation>
    </message>
    <message>
      <source>samples that reach only here</source>
      <translation>Proben, die nur hier reichen</translation>
    </message>
    <message>
      <source>connected only</source>
      <translation>nur Zusammenhängendes</translation>
    </message>
    <message>
      <source>as far as it hangs together with what was clicked</source>
      <translation>so weit es mit dem Angeklickten zusammenhängt</translation>
    </message>
    <message>
      <source>a layer that is measured</source>
      <translation>eine Ebene, die gemessen wird</translation>
    </message>
    <message>
      <source> on</source>
      <translation> ein</translation>
    </message>
    <message>
      <source>a brightened source</source>
      <translation>eine aufgehellte Quelle</translation>
    </message>
    <message>
      <source>a cleaned source</source>
      <translation>eine gereinigte Quelle</translation>
    </message>
    <message>
      <source>hard edge</source>
      <translation>harter Rand</translation>
    </message>
  </context>
  <context>
    <name>start</name>
    <message>
      <source>Port {port} cannot be listened to: another program uses it. Choose another.</source>
      <translation>An Port {port} lässt sich nicht horchen: Ein anderes Programm benutzt ihn. Bitte einen anderen wählen.</translation>
    </message>
    <message>
      <source>Port {port} receives packets that are not Open Sound Control: they are ignored. Check what sends to it.</source>
      <translation>An Port {port} kommen Pakete an, die kein Open Sound Control sind: sie werden übergangen. Bitte prüfen, was dorthin sendet.</translation>
    </message>
    <message>
      <source>Open pictures, clips or projects (Ctrl+O)</source>
      <translation>Bilder, Clips oder Projekte öffnen (Strg+O)</translation>
    </message>
    <message>
      <source>Open…</source>
      <translation>Öffnen …</translation>
    </message>
    <message>
      <source>Open the glaze yard, a made-up picture to try things on</source>
      <translation>Den Glasurhof öffnen, ein erfundenes Bild zum Ausprobieren</translation>
    </message>
    <message>
      <source>Open the demo</source>
      <translation>Die Demo öffnen</translation>
    </message>
    <message>
      <source>Six steps on the demo, each in your own hands</source>
      <translation>Sechs Schritte an der Demo, jeder in eigener Hand</translation>
    </message>
    <message>
      <source>Take the tour</source>
      <translation>Den Rundgang machen</translation>
    </message>
    <message>
      <source>What each thing is for, page by page</source>
      <translation>Wozu jedes Ding dient, Seite für Seite</translation>
    </message>
    <message>
      <source>Read the guide</source>
      <translation>Die Anleitung lesen</translation>
    </message>
    <message>
      <source>Pick colours in a picture or a clip, and change only those.</source>
      <translation>Farben in einem Bild oder Clip auswählen und nur diese ändern.</translation>
    </message>
    <message>
      <source>Or drop pictures, clips, projects or folders anywhere on this window.</source>
      <translation>Oder Bilder, Clips, Projekte oder Ordner irgendwo auf dieses Fenster ziehen.</translation>
    </message>
    <message>
      <source>Recent work</source>
      <translation>Letzte Arbeiten</translation>
    </message>
    <message>
      <source>1 of 6: click the turquoise jar. Its mask appears in the other view.</source>
      <translation>1 von 6: Den türkisen Krug anklicken. Seine Maske erscheint in der anderen Ansicht.</translation>
    </message>
    <message>
      <source>2 of 6: hold Shift and click the green bottle. It is kept too.</source>
      <translation>2 von 6: Halte Umschalt und klicke auf die grüne Flasche. Sie wird auch behalten.</translation>
    </message>
    <message>
      <source>3 of 6: drag Tolerance, and watch the mask. The hill behind it shows how much each value takes.</source>
      <translation>3 von 6: „Toleranz“ ziehen und die Maske beobachten. Der Hügel dahinter zeigt, wie viel jeder Wert nimmt.</translation>
    </message>
    <message>
      <source>4 of 6: on the page Edge, drag Grow a little. The outline moves.</source>
      <translation>4 von 6: Auf der Seite „Rand“ ein wenig „Wachsen“ ziehen. Der Umriss bewegt sich.</translation>
    </message>
    <message>
      <source>5 of 6: on the page Adjust, drag Hue under Recolour. Only jar and bottle change.</source>
      <translation>5 von 6: Ziehe auf der Seite Anpassen am Farbton unter Umfärben. Nur Krug und Flasche ändern sich.</translation>
    </message>
    <message>
      <source>6 of 6: press Ctrl+E, choose a folder, and export. Ending the tour takes back what it did.</source>
      <translation>6 von 6: Drücke Strg+E, wähle einen Ordner und exportiere. Am Ende nimmt der Rundgang zurück, was er getan hat.</translation>
    </message>
    <message>
      <source>End the tour</source>
      <translation>Rundgang beenden</translation>
    </message>
    <message>
      <source>Leave the tour</source>
      <translation>Rundgang verlassen</translation>
    </message>
    <message>
      <source>That was the tour. {words}.</source>
      <translation>Das war der Rundgang. {words}.</translation>
    </message>
  </context>
  <context>
    <name>stills</name>
    <message>
      <source>{path} cannot be opened: what it says of itself does not end. Save it again without metadata, or restore it.</source>
      <translation>{path} lässt sich nicht öffnen: die Angaben darin nehmen kein Ende. Ohne Metadaten neu sichern oder wiederherstellen.</translation>
    </message>
    <message>
      <source>{path} is cut short or damaged: restore it from where it came from.</source>
      <translation>{path} ist abgeschnitten oder beschädigt: Bitte von dort wiederherstellen, woher es kam.</translation>
    </message>
    <message>
      <source>The profile of {path} is damaged: have it saved again, or convert it to RGB.</source>
      <translation>Das Profil von {path} ist beschädigt: Bitte neu sichern lassen oder in RGB umwandeln.</translation>
    </message>
    <message>
      <source>The layer {path} does not exist: choose another, or measure the original.</source>
      <translation>Die Ebene {path} gibt es nicht: Bitte eine andere wählen oder das Original messen.</translation>
    </message>
    <message>
      <source>The lookup table {path} does not exist: choose another, or take it out.</source>
      <translation>Die Farbtabelle {path} gibt es nicht: Bitte eine andere wählen oder sie herausnehmen.</translation>
    </message>
    <message>
      <source>The layer {path} is {width} x {height} pixels, smaller than the picture: choose one of the same size.</source>
      <translation>Die Ebene {path} hat {width} x {height} Pixel, weniger als das Bild: Bitte eine derselben Größe wählen.</translation>
    </message>
    <message>
      <source>{path} is not a readable {kind} picture: it is damaged or has the wrong ending.</source>
      <translation>{path} ist kein lesbares {kind}-Bild: Es ist beschädigt oder hat die falsche Endung.</translation>
    </message>
    <message>
      <source>{path} is {width} x {height} pixels, more than {most} million: cut it into parts.</source>
      <translation>{path} hat {width} x {height} Pixel, mehr als {most} Millionen: Bitte in Teile schneiden.</translation>
    </message>
    <message>
      <source>{path} is no raw file that can be read: it is damaged, or of a camera that is not known.</source>
      <translation>{path} ist keine lesbare Rohdatei: Sie ist beschädigt oder von einer unbekannten Kamera.</translation>
    </message>
    <message>
      <source>camera raw ({kind})</source>
      <translation>Kamera-Rohdatei ({kind})</translation>
    </message>
    <message>
      <source>none (linear light)</source>
      <translation>keines (lineares Licht)</translation>
    </message>
    <message>
      <source>as shot</source>
      <translation>wie aufgenommen</translation>
    </message>
    <message>
      <source>{path} has no pixel at {place:.0f},{down:.0f}: pick the white balance anew.</source>
      <translation>{path} hat kein Pixel bei {place:.0f},{down:.0f}: Bitte den Weißabgleich neu wählen.</translation>
    </message>
    <message>
      <source>{path} is black or burnt out at {place:.0f},{down:.0f}: pick the white balance at another place.</source>
      <translation>{path} ist bei {place:.0f},{down:.0f} schwarz oder ausgebrannt: Bitte den Weißabgleich an einer anderen Stelle wählen.</translation>
    </message>
    <message>
      <source>damaged (read as sRGB)</source>
      <translation>beschädigt (als sRGB gelesen)</translation>
    </message>
    <message>
      <source>{name} has a damaged colour profile: it is read as sRGB, and written without it.</source>
      <translation>{name} hat ein beschädigtes Farbprofil: es wird als sRGB gelesen und ohne das Profil geschrieben.</translation>
    </message>
    <message>
      <source>{name}: {odd} values were no numbers or too bright to be light; they were made black, or as bright as can be.</source>
      <translation>{name}: {odd} Werte waren keine Zahlen oder zu hell für Licht; sie wurden schwarz oder so hell wie möglich gemacht.</translation>
    </message>
    <message>
      <source>{path} is empty (0 bytes): restore it from where it came from.</source>
      <translation>{path} ist leer (0 Bytes): Bitte von dort wiederherstellen, woher es kam.</translation>
    </message>
    <message>
      <source>{path} cannot be opened: give a picture ({known}), a clip or a project.</source>
      <translation>{path} lässt sich nicht öffnen: Bitte ein Bild ({known}), einen Clip oder ein Projekt angeben.</translation>
    </message>
    <message>
      <source>Part {count}</source>
      <translation>Teil {count}</translation>
    </message>
    <message>
      <source>{path} has no part {part}: it has {parts}.</source>
      <translation>{path} hat keinen Teil {part}: vorhanden sind {parts}.</translation>
    </message>
    <message>
      <source>only one</source>
      <translation>nur einer</translation>
    </message>
    <message>
      <source>{path} has an unknown compression ({compression}): save it again with ZIP or LZW.</source>
      <translation>{path} hat eine unbekannte Kompression ({compression}): mit ZIP oder LZW neu sichern.</translation>
    </message>
  </context>
  <context>
    <name>widgets</name>
    <message>
      <source>Drag the dark, grey or light handle towards a hue; the farther from the middle, the more. Double-click puts it back. Keys: Tab through the page as ever; Up and Down choose a handle, Left and Right turn it, + and - move it out and in (Shift ×10), Home puts it back.</source>
      <translation>Den dunklen, grauen oder hellen Griff zu einem Farbton ziehen; je weiter von der Mitte, desto mehr. Doppelklick setzt ihn zurück. Tasten: Tab wie immer durch die Seite; Auf und Ab wählen einen Griff, Links und Rechts drehen ihn, + und - bewegen ihn hinaus und herein (Umschalt ×10), Pos1 setzt ihn zurück.</translation>
    </message>
    <message>
      <source>Balance of shadows, midtones and highlights</source>
      <translation>Balance von Schatten, Mitteltönen und Lichtern</translation>
    </message>
    <message>
      <source>Drag a corner, or between them the whole; Shift moves the other side the opposite way, Ctrl moves core and falloff of one side together. Keys: Left and Right nudge (Shift ×10, Alt ÷10), Up and Down choose what is nudged, Home is the full range, Space switches on and off, I inverts.</source>
      <translation>Eine Ecke ziehen, oder dazwischen das Ganze; Umschalt bewegt die andere Seite entgegengesetzt, Strg bewegt Kern und Auslauf einer Seite zusammen. Tasten: Links und Rechts bewegen schrittweise (Umschalt ×10, Alt ÷10), Auf und Ab wählen, was bewegt wird, Pos1 ist der volle Bereich, die Leertaste schaltet ein und aus, I kehrt um.</translation>
    </message>
    <message>
      <source>{measure} band</source>
      <translation>Band: {measure}</translation>
    </message>
    <message>
      <source>, off</source>
      <translation>, aus</translation>
    </message>
    <message>
      <source>Fades in from {}, full from {} to {}, fades out to {}</source>
      <translation>Beginnt ab {}, voll von {} bis {}, endet bei {}</translation>
    </message>
    <message>
      <source> (inverted)</source>
      <translation> (umgekehrt)</translation>
    </message>
    <message>
      <source>off</source>
      <translation>aus</translation>
    </message>
    <message>
      <source>{measure} band on or off</source>
      <translation>Band {measure} ein oder aus</translation>
    </message>
    <message>
      <source>Invert {measure} band</source>
      <translation>Band {measure} umkehren</translation>
    </message>
    <message>
      <source>Open or close {title}</source>
      <translation>{title} öffnen oder schließen</translation>
    </message>
    <message>
      <source>See {title} on or off</source>
      <translation>{title} ein oder aus sehen</translation>
    </message>
    <message>
      <source>Reset {title}</source>
      <translation>{title} zurücksetzen</translation>
    </message>
    <message>
      <source>More of {title}</source>
      <translation>Mehr zu {title}</translation>
    </message>
    <message>
      <source>{name}, as a code</source>
      <translation>{name}, als Code</translation>
    </message>
    <message>
      <source>The colour as #RRGGBB</source>
      <translation>Die Farbe als #RRGGBB</translation>
    </message>
    <message>
      <source>Press on the curve to put a point there, and drag it; right-click or double-click takes a point off. Keys: Left and Right choose a point, Up and Down move it (Shift ×10, Alt ÷10), Ctrl with Left and Right moves it sideways; Insert puts one where most room is, Delete takes the chosen one off, Home straightens the curve.</source>
      <translation>Auf die Kurve drücken setzt dort einen Punkt, ziehen bewegt ihn; Rechtsklick oder Doppelklick nimmt einen Punkt weg. Tasten: Links und Rechts wählen einen Punkt, Auf und Ab bewegen ihn (Umschalt ×10, Alt ÷10), Strg mit Links und Rechts bewegt ihn seitwärts; Einfg setzt einen, wo am meisten Platz ist, Entf nimmt den gewählten weg, Pos1 zieht die Kurve gerade.</translation>
    </message>
    <message>
      <source>Histogram of the mask: from nothing (left) to all (right)</source>
      <translation>Histogramm der Maske: von nichts (links) bis alles (rechts)</translation>
    </message>
    <message>
      <source>Put this line away</source>
      <translation>Diese Zeile wegräumen</translation>
    </message>
    <message>
      <source>; A finds it on the picture</source>
      <translation>; A findet es auf dem Bild</translation>
    </message>
    <message>
      <source>{tip}Drag, type, or arrow keys (Shift ×10, Alt ÷10){auto}; double-click resets to {back}</source>
      <translation>{tip}Ziehen, tippen oder Pfeiltasten (Umschalt ×10, Alt ÷10){auto}; Doppelklick setzt auf {back} zurück</translation>
    </message>
    <message>
      <source>auto  {found}</source>
      <translation>auto  {found}</translation>
    </message>
  </context>
  <context>
    <name>window</name>
    <message>
      <source>ICC profiles (*.icc *.icm)</source>
      <translation>ICC-Profile (*.icc *.icm)</translation>
    </message>
    <message>
      <source>Veil colour</source>
      <translation>Schleierfarbe</translation>
    </message>
    <message>
      <source>ICC profile to proof</source>
      <translation>ICC-Profil für den Softproof</translation>
    </message>
    <message>
      <source>ICC profile of this screen</source>
      <translation>ICC-Profil dieses Bildschirms</translation>
    </message>
    <message>
      <source>There is nothing to export yet: open a picture first.</source>
      <translation>Es gibt noch nichts zu exportieren: zuerst ein Bild öffnen.</translation>
    </message>
    <message>
      <source> {count} more wait.</source>
      <translation> {count} weitere warten.</translation>
    </message>
    <message>
      <source>{title} is not done yet.{more} Stop it and close? What it has written so far is taken away.</source>
      <translation>{title} ist noch nicht fertig.{more} Anhalten und schließen? Was bisher geschrieben wurde, wird weggenommen.</translation>
    </message>
    <message>
      <source>Open</source>
      <translation>Öffnen</translation>
    </message>
    <message>
      <source>Show in folder</source>
      <translation>Im Ordner zeigen</translation>
    </message>
    <message>
      <source>No program opens {name} on this desktop: it lies in {folder}.</source>
      <translation>Kein Programm dieses Rechners öffnet {name}: Es liegt in {folder}.</translation>
    </message>
    <message>
      <source>Pictures, clips, projects</source>
      <translation>Bilder, Clips, Projekte</translation>
    </message>
    <message>
      <source>Open pictures, clips or projects</source>
      <translation>Bilder, Clips oder Projekte öffnen</translation>
    </message>
    <message>
      <source>{readable};;All files (*)</source>
      <translation>{readable};;Alle Dateien (*)</translation>
    </message>
    <message>
      <source>Find {name}</source>
      <translation>{name} finden</translation>
    </message>
    <message>
      <source>{name} was changed by another window or program since it was opened here.</source>
      <translation>{name} wurde von einem anderen Fenster oder Programm geändert, seit es hier geöffnet wurde.</translation>
    </message>
    <message>
      <source>Save beside it</source>
      <translation>Daneben sichern</translation>
    </message>
    <message>
      <source>Overwrite it</source>
      <translation>Überschreiben</translation>
    </message>
    <message>
      <source>Save project</source>
      <translation>Projekt sichern</translation>
    </message>
    <message>
      <source>Projects (*{ending})</source>
      <translation>Projekte (*{ending})</translation>
    </message>
    <message>
      <source>Find it…</source>
      <translation>Finden …</translation>
    </message>
    <message>
      <source>{paths} holds no pictures: drop pictures, clips, projects, or folders that hold some.</source>
      <translation>{paths} enthält keine Bilder: Bitte Bilder, Clips, Projekte oder Ordner mit solchen hierher ziehen.</translation>
    </message>
    <message>
      <source>{name} holds numbered pictures. Open them as one clip?</source>
      <translation>{name} enthält nummerierte Bilder. Sie als einen Clip öffnen?</translation>
    </message>
    <message>
      <source>The project has changes that are not saved.</source>
      <translation>Das Projekt hat Änderungen, die nicht gesichert sind.</translation>
    </message>
    <message>
      <source>{count} pictures have changes that are not saved: {names}. Save All writes a new project beside each picture that has none.</source>
      <translation>{count} Bilder haben Änderungen, die nicht gesichert sind: {names}. „Alle sichern“ schreibt ein neues Projekt neben jedes Bild, das keines hat.</translation>
    </message>
    <message>
      <source>Sieve</source>
      <translation>Sieb</translation>
    </message>
    <message>
      <source>Take</source>
      <translation>Fassung</translation>
    </message>
    <message>
      <source>Preset {name}</source>
      <translation>Vorgabe {name}</translation>
    </message>
    <message>
      <source>Sieve preset</source>
      <translation>Siebvorgabe</translation>
    </message>
    <message>
      <source>Picture</source>
      <translation>Bild</translation>
    </message>
    <message>
      <source>Guide</source>
      <translation>Anleitung</translation>
    </message>
    <message>
      <source>The guide was not installed: it is the folder docs/guide of the sources.</source>
      <translation>Die Anleitung wurde nicht installiert: Es ist der Ordner docs/guide der Quellen.</translation>
    </message>
    <message>
      <source>Opened with {project}, which lies beside it.</source>
      <translation>Geöffnet mit {project}, das daneben liegt.</translation>
    </message>
    <message>
      <source>Start fresh</source>
      <translation>Neu beginnen</translation>
    </message>
    <message>
      <source>What was open last is open again.</source>
      <translation>Was zuletzt offen war, ist wieder offen.</translation>
    </message>
    <message>
      <source>The {number} pictures that were open last are open again.</source>
      <translation>Die {number} zuletzt offenen Bilder sind wieder offen.</translation>
    </message>
    <message>
      <source>Close all</source>
      <translation>Alle schließen</translation>
    </message>
    <message>
      <source>This picture looks flat, as if recorded with a log curve. Samples are compared as if that were undone.</source>
      <translation>Dieses Bild sieht flach aus, wie mit einer Log-Kurve aufgenommen. Proben werden verglichen, als wäre sie rückgängig gemacht.</translation>
    </message>
    <message>
      <source>Input settings…</source>
      <translation>Eingabe …</translation>
    </message>
    <message>
      <source>{names} is not where it was.</source>
      <translation>{names} liegt nicht mehr, wo es lag.</translation>
    </message>
    <message>
      <source>{number} pictures of the tray are not where they were: {names}.</source>
      <translation>{number} Bilder der Ablage liegen nicht mehr, wo sie lagen: {names}.</translation>
    </message>
    <message>
      <source>Remove from the tray</source>
      <translation>Aus der Ablage nehmen</translation>
    </message>
    <message>
      <source>The mask is inverted: what you keep is left out.</source>
      <translation>Die Maske ist umgekehrt: Was behalten wird, bleibt draußen.</translation>
    </message>
    <message>
      <source>Invert back</source>
      <translation>Zurückkehren</translation>
    </message>
    <message>
      <source>Invert the mask</source>
      <translation>Maske umkehren</translation>
    </message>
    <message>
      <source>{title}: drag this strip to move the panel, double-click to let it float; View &gt; Panels puts it away</source>
      <translation>{title}: An diesem Streifen ziehen bewegt das Feld, Doppelklick löst es; Ansicht &gt; Bedienfelder räumt es weg</translation>
    </message>
    <message>
      <source>Put back</source>
      <translation>Zurück</translation>
    </message>
    <message>
      <source>Put {title} back into the window</source>
      <translation>{title} ins Fenster zurücksetzen</translation>
    </message>
    <message>
      <source>Close {title}; View &gt; Panels brings it back</source>
      <translation>{title} schließen; Ansicht &gt; Bedienfelder holt es zurück</translation>
    </message>
    <message>
      <source>{titles} floats</source>
      <translation>{titles} gelöst</translation>
    </message>
    <message>
      <source>Reset the panels</source>
      <translation>Bedienfelder zurücksetzen</translation>
    </message>
    <message>
      <source>Stop</source>
      <translation>Anhalten</translation>
    </message>
    <message>
      <source>Stopping…</source>
      <translation>Hält an …</translation>
    </message>
    <message>
      <source>, {left:.0f} s left</source>
      <translation>, noch {left:.0f} s</translation>
    </message>
    <message>
      <source>Pick</source>
      <translation>Auswahl</translation>
    </message>
    <message>
      <source>Bands</source>
      <translation>Bänder</translation>
    </message>
    <message>
      <source>Edge</source>
      <translation>Rand</translation>
    </message>
    <message>
      <source>Areas</source>
      <translation>Flächen</translation>
    </message>
    <message>
      <source>Adjust</source>
      <translation>Anpassen</translation>
    </message>
    <message>
      <source>Steps</source>
      <translation>Schritte</translation>
    </message>
    <message>
      <source>Menu</source>
      <translation>Menü</translation>
    </message>
    <message>
      <source>All menus; a wider window shows them beside each other</source>
      <translation>Alle Menüs; ein breiteres Fenster zeigt sie nebeneinander</translation>
    </message>
    <message>
      <source>Stack</source>
      <translation>Stapel</translation>
    </message>
    <message>
      <source>Step</source>
      <translation>Schritt</translation>
    </message>
    <message>
      <source>Colour field</source>
      <translation>Farbfeld</translation>
    </message>
    <message>
      <source>Scopes</source>
      <translation>Messinstrumente</translation>
    </message>
    <message>
      <source>There is no area to be keyed: draw one first (page Areas).</source>
      <translation>Es gibt keine Fläche für Keyframes: zuerst eine zeichnen (Seite „Flächen“).</translation>
    </message>
    <message>
      <source>{url} is not a file on this computer: save it first, then drop the file.</source>
      <translation>{url} ist keine Datei auf diesem Rechner: zuerst sichern, dann die Datei hierher ziehen.</translation>
    </message>
  </context>
  <context>
    <name>workspace</name>
    <message>
      <source>Block on</source>
      <translation>Block ein</translation>
    </message>
    <message>
      <source>Block off</source>
      <translation>Block aus</translation>
    </message>
    <message>
      <source>Reset a block</source>
      <translation>Einen Block zurücksetzen</translation>
    </message>
    <message>
      <source>Copy a block</source>
      <translation>Einen Block kopieren</translation>
    </message>
    <message>
      <source>Correction {k}</source>
      <translation>Korrektur {k}</translation>
    </message>
    <message>
      <source>{path} holds a correction beyond what a CDL here may be: choose another file.</source>
      <translation>{path} enthält eine Korrektur jenseits dessen, was eine CDL hier sein darf: Bitte eine andere Datei wählen.</translation>
    </message>
    <message>
      <source>Read a CDL</source>
      <translation>Eine CDL lesen</translation>
    </message>
    <message>
      <source>Lookup table</source>
      <translation>Farbtabelle</translation>
    </message>
    <message>
      <source>Wrote {name}</source>
      <translation>{name} geschrieben</translation>
    </message>
    <message>
      <source>; left out: {left_out}</source>
      <translation>; weggelassen: {left_out}</translation>
    </message>
    <message>
      <source>No light makes a grey look like this colour: pick a place that should be grey.</source>
      <translation>Kein Licht lässt ein Grau wie diese Farbe aussehen: Bitte eine Stelle wählen, die grau sein soll.</translation>
    </message>
    <message>
      <source>Pick a neutral</source>
      <translation>Neutral wählen</translation>
    </message>
    <message>
      <source>Island out or back</source>
      <translation>Insel heraus oder zurück</translation>
    </message>
    <message>
      <source>Take islands out</source>
      <translation>Inseln herausnehmen</translation>
    </message>
    <message>
      <source>Keep only this island</source>
      <translation>Nur diese Insel behalten</translation>
    </message>
    <message>
      <source>Bring all islands back</source>
      <translation>Alle Inseln zurückholen</translation>
    </message>
    <message>
      <source>Colour fringe on {handled} pixels; {unhandled} without the correction</source>
      <translation>Farbsaum auf {handled} Pixeln; {unhandled} ohne die Korrektur</translation>
    </message>
    <message>
      <source>Add {kind}</source>
      <translation>{kind} hinzufügen</translation>
    </message>
    <message>
      <source>There is not enough memory for this: close other programs or work on a smaller picture.</source>
      <translation>Dafür ist nicht genug Speicher da: Bitte andere Programme schließen oder mit einem kleineren Bild arbeiten.</translation>
    </message>
    <message>
      <source>Something went wrong inside the program ({name}): your work is still here and you can go on. If it happens again, send us the details.</source>
      <translation>Im Programm ist etwas schiefgegangen ({name}): Die Arbeit ist noch da, und es kann weitergehen. Wenn es wieder geschieht, bitte die Einzelheiten schicken.</translation>
    </message>
    <message>
      <source>Something went wrong inside the program; your work is kept and you can go on. If it happens again, send us the details.</source>
      <translation>Im Programm ist etwas schiefgegangen; die Arbeit ist aufbewahrt, und es kann weitergehen. Wenn es wieder geschieht, bitte die Einzelheiten schicken.</translation>
    </message>
    <message>
      <source>{title} waits for its turn: {count} in the queue</source>
      <translation>{title} wartet: {count} in der Warteschlange</translation>
    </message>
    <message>
      <source>{title} is still running: wait for it or stop it first.</source>
      <translation>{title} läuft noch: Bitte warten oder es zuerst anhalten.</translation>
    </message>
    <message>
      <source>{title} was stopped</source>
      <translation>{title} wurde angehalten</translation>
    </message>
    <message>
      <source>Keyframe</source>
      <translation>Keyframe</translation>
    </message>
    <message>
      <source>Move a keyframe</source>
      <translation>Einen Keyframe verschieben</translation>
    </message>
    <message>
      <source>No keyframes</source>
      <translation>Keine Keyframes</translation>
    </message>
    <message>
      <source>No keyframe</source>
      <translation>Kein Keyframe</translation>
    </message>
    <message>
      <source>Take a sample in a clip first: its colour is what gets a key.</source>
      <translation>Zuerst eine Probe in einem Clip nehmen: Ihre Farbe bekommt einen Keyframe.</translation>
    </message>
    <message>
      <source>Key the samples</source>
      <translation>Keyframes für Proben</translation>
    </message>
    <message>
      <source>Choose an area of a clip first: it is what is tracked.</source>
      <translation>Zuerst eine Fläche eines Clips wählen: Sie wird verfolgt.</translation>
    </message>
    <message>
      <source>Track</source>
      <translation>Verfolgen</translation>
    </message>
    <message>
      <source>lost at frame {lost}: set it there by hand and track on</source>
      <translation>verloren bei Bild {lost}: dort von Hand setzen und weiter verfolgen</translation>
    </message>
    <message>
      <source>to the end</source>
      <translation>bis zum Ende</translation>
    </message>
    <message>
      <source>Tracked to frame {last}, {lost}; least confidence {values:.0f} %</source>
      <translation>Verfolgt bis Bild {last}, {lost}; geringste Sicherheit {values:.0f} %</translation>
    </message>
    <message>
      <source>Tracking</source>
      <translation>Verfolgen</translation>
    </message>
    <message>
      <source>Watched {frames} frames: {in_words}, {count} jumps</source>
      <translation>{frames} Bilder angesehen: {in_words}, {count} Sprünge</translation>
    </message>
    <message>
      <source>Switch coverage over time on first: it finds the jumps</source>
      <translation>Zuerst die Deckung über die Zeit einschalten: Sie findet die Sprünge</translation>
    </message>
    <message>
      <source>No jump was found</source>
      <translation>Kein Sprung gefunden</translation>
    </message>
    <message>
      <source>No jump was found yet</source>
      <translation>Noch kein Sprung gefunden</translation>
    </message>
    <message>
      <source>{dropped} of {all} frames could not be shown in time</source>
      <translation>{dropped} von {all} Bildern konnten nicht rechtzeitig gezeigt werden</translation>
    </message>
    <message>
      <source>every frame was shown</source>
      <translation>jedes Bild wurde gezeigt</translation>
    </message>
    <message>
      <source>Played {shown} frames: {late}</source>
      <translation>{shown} Bilder abgespielt: {late}</translation>
    </message>
    <message>
      <source>Nothing open</source>
      <translation>Nichts offen</translation>
    </message>
    <message>
      <source>{what} does not go on: {complaint}. Undo what is too much, or begin another sieve.</source>
      <translation>{what} geht nicht weiter: {complaint}. Bitte rückgängig machen, was zu viel ist, oder ein anderes Sieb beginnen.</translation>
    </message>
    <message>
      <source>{path} was changed by another window or program since it was read here: save under another name.</source>
      <translation>{path} wurde von einem anderen Fenster oder Programm geändert, seit es hier gelesen wurde: Bitte unter einem anderen Namen sichern.</translation>
    </message>
    <message>
      <source>{wanted} is not there any more: show where the picture is now.</source>
      <translation>{wanted} ist nicht mehr da: Bitte zeigen, wo das Bild jetzt ist.</translation>
    </message>
    <message>
      <source>{path} names no picture: open a picture first.</source>
      <translation>{path} nennt kein Bild: zuerst ein Bild öffnen.</translation>
    </message>
    <message>
      <source>Locate the picture</source>
      <translation>Bild suchen</translation>
    </message>
    <message>
      <source>Opening {name}</source>
      <translation>{name} wird geöffnet</translation>
    </message>
    <message>
      <source>{name} has changed since the project was saved; File &gt; Locate the picture… takes another.</source>
      <translation>{name} hat sich geändert, seit das Projekt gesichert wurde; Datei &gt; Bild suchen … nimmt ein anderes.</translation>
    </message>
    <message>
      <source>Saved {name}</source>
      <translation>{name} gesichert</translation>
    </message>
    <message>
      <source>Reset the stack</source>
      <translation>Stapel zurücksetzen</translation>
    </message>
    <message>
      <source>{name} was changed by another window or program: your work is saved beside it as {name2}.</source>
      <translation>{name} wurde von einem anderen Fenster oder Programm geändert: Ihre Arbeit ist daneben gesichert als {name2}.</translation>
    </message>
    <message>
      <source>Paste</source>
      <translation>Einfügen</translation>
    </message>
    <message>
      <source>Pasted {sieves} into {count} pictures</source>
      <translation>{sieves} in {count} Bilder eingefügt</translation>
    </message>
    <message>
      <source>Finding tolerances</source>
      <translation>Toleranzen werden gefunden</translation>
    </message>
    <message>
      <source>Shared stack</source>
      <translation>Gemeinsamer Stapel</translation>
    </message>
    <message>
      <source>{name}: mean ΔE2000 {mean:.2f}, largest {largest:.1f} from the render{left}</source>
      <translation>{name}: mittleres ΔE2000 {mean:.2f}, größtes {largest:.1f} zum Rendern{left}</translation>
    </message>
    <message>
      <source>Writing {name}</source>
      <translation>{name} wird geschrieben</translation>
    </message>
    <message>
      <source>There are no stills on the tray: open some, or export the clips (Ctrl+E).</source>
      <translation>Auf der Ablage sind keine Einzelbilder: welche öffnen, oder die Clips exportieren (Strg+E).</translation>
    </message>
    <message>
      <source>{clips} clips are left out: export them by themselves (Ctrl+E)</source>
      <translation>{clips} Clips bleiben weg: sie für sich exportieren (Strg+E)</translation>
    </message>
    <message>
      <source>Batch: {done} of {count} pictures looked at</source>
      <translation>Stapel: {done} von {count} Bildern angesehen</translation>
    </message>
    <message>
      <source>Batch: {done} of {count} pictures written</source>
      <translation>Serie: {done} von {count} Bildern geschrieben</translation>
    </message>
    <message>
      <source>, {n} of them by an earlier run</source>
      <translation>, davon {n} von einem früheren Lauf</translation>
    </message>
    <message>
      <source> And {count} more: see batch.html.</source>
      <translation> Und {count} weitere: siehe batch.html.</translation>
    </message>
    <message>
      <source>Batch</source>
      <translation>Serie</translation>
    </message>
    <message>
      <source>Exporting {name}</source>
      <translation>{name} wird exportiert</translation>
    </message>
    <message>
      <source>Exported {name}</source>
      <translation>{name} exportiert</translation>
    </message>
    <message>
      <source>Preset {name}</source>
      <translation>Vorgabe {name}</translation>
    </message>
    <message>
      <source>Stored preset {name}</source>
      <translation>Vorgabe {name} gesichert</translation>
    </message>
    <message>
      <source>Stored {name}</source>
      <translation>{name} gesichert</translation>
    </message>
    <message>
      <source>This mask is made from others': unlink it to pick colours of its own</source>
      <translation>Diese Maske ist aus denen anderer gemacht: lösen, um eigene Farben auszuwählen</translation>
    </message>
    <message>
      <source>Tolerance</source>
      <translation>Toleranz</translation>
    </message>
    <message>
      <source>Drag tolerance</source>
      <translation>Toleranz ziehen</translation>
    </message>
    <message>
      <source>New pick</source>
      <translation>Neu</translation>
    </message>
    <message>
      <source>Add {role} sample</source>
      <translation>Probe hinzufügen: {role}</translation>
    </message>
    <message>
      <source>Chosen: {name}</source>
      <translation>Gewählt: {name}</translation>
    </message>
    <message>
      <source>Nothing changed. Shift+click adds, Ctrl+click drops; a new pick is made on the page Pick.</source>
      <translation>Nichts geändert. Umschalt+Klick fügt hinzu, Strg+Klick lässt weg; neu ausgewählt wird auf der Seite Auswahl.</translation>
    </message>
    <message>
      <source>Remove sample</source>
      <translation>Probe entfernen</translation>
    </message>
    <message>
      <source>Sample again</source>
      <translation>Probe neu nehmen</translation>
    </message>
    <message>
      <source>; nearest is {name}</source>
      <translation>; am nächsten ist {name}</translation>
    </message>
    <message>
      <source>drop sample {nearest}</source>
      <translation>Weglassen-Probe {nearest}</translation>
    </message>
    <message>
      <source>Fit to samples</source>
      <translation>An Proben anpassen</translation>
    </message>
    <message>
      <source>; nothing would part them better</source>
      <translation>; nichts trennte sie besser</translation>
    </message>
    <message>
      <source>, it was {before:.0f} %</source>
      <translation>, vorher {before:.0f} %</translation>
    </message>
    <message>
      <source>Fit: separation {separation:.0f} %{kept}{nearest}</source>
      <translation>Anpassung: Trennung {separation:.0f} %{kept}{nearest}</translation>
    </message>
    <message>
      <source>Outline a thing</source>
      <translation>Ein Ding umreißen</translation>
    </message>
    <message numerus="yes">
      <source>{n} samples hold what is inside the outline</source>
      <comment>{n} sample holds what is inside the outline</comment>
      <translation>
        <numerusform>{n} Probe hält, was im Umriss ist</numerusform>
        <numerusform>{n} Proben halten, was im Umriss ist</numerusform>
      </translation>
    </message>
    <message>
      <source>Looking inside the outline…</source>
      <translation>Es wird in den Umriss gesehen …</translation>
    </message>
    <message>
      <source>Looking inside the outline</source>
      <translation>In den Umriss sehen</translation>
    </message>
    <message>
      <source>Set bands from samples</source>
      <translation>Bänder nach Proben setzen</translation>
    </message>
    <message>
      <source>Start from {part}</source>
      <translation>Beginnen mit {part}</translation>
    </message>
    <message>
      <source>Add sieve</source>
      <translation>Sieb hinzufügen</translation>
    </message>
    <message>
      <source>Remove sieve</source>
      <translation>Sieb entfernen</translation>
    </message>
    <message>
      <source>Move sieve</source>
      <translation>Sieb verschieben</translation>
    </message>
    <message>
      <source>Duplicate sieve</source>
      <translation>Sieb verdoppeln</translation>
    </message>
    <message>
      <source>Add a sieve for leftovers</source>
      <translation>Sieb für Reste hinzufügen</translation>
    </message>
    <message>
      <source>Add a sieve for the rest</source>
      <translation>Sieb für das Übrige hinzufügen</translation>
    </message>
    <message>
      <source>Solo</source>
      <translation>Allein</translation>
    </message>
    <message>
      <source>Mask from</source>
      <translation>Maske von</translation>
    </message>
    <message>
      <source>{mode} a mask</source>
      <translation>Maske: {mode}</translation>
    </message>
    <message>
      <source>Unlink the mask</source>
      <translation>Maske lösen</translation>
    </message>
    <message>
      <source>Paste {part}</source>
      <translation>Einfügen: {part}</translation>
    </message>
    <message>
      <source>Paste sieve</source>
      <translation>Sieb einfügen</translation>
    </message>
    <message>
      <source>Group</source>
      <translation>Gruppe</translation>
    </message>
    <message>
      <source>No group</source>
      <translation>Keine Gruppe</translation>
    </message>
    <message>
      <source>Change group</source>
      <translation>Gruppe ändern</translation>
    </message>
    <message>
      <source>Dissolve group</source>
      <translation>Gruppe auflösen</translation>
    </message>
    <message>
      <source>The name of a take has 1 to 200 characters: give another name.</source>
      <translation>Der Name einer Fassung hat 1 bis 200 Zeichen: Bitte einen anderen Namen geben.</translation>
    </message>
    <message>
      <source>Save take</source>
      <translation>Fassung sichern</translation>
    </message>
    <message>
      <source>Take {name}</source>
      <translation>Fassung {name}</translation>
    </message>
    <message>
      <source>Remove take</source>
      <translation>Fassung entfernen</translation>
    </message>
    <message>
      <source>Read as before</source>
      <translation>Lesen wie vorher</translation>
    </message>
    <message>
      <source>Read the picture otherwise</source>
      <translation>Das Bild anders lesen</translation>
    </message>
    <message>
      <source>Reading the colour configuration</source>
      <translation>Die Farbkonfiguration wird gelesen</translation>
    </message>
    <message>
      <source>Working space</source>
      <translation>Arbeitsfarbraum</translation>
    </message>
    <message>
      <source>Display</source>
      <translation>Anzeige</translation>
    </message>
    <message>
      <source>Gamut</source>
      <translation>Farbumfang</translation>
    </message>
    <message>
      <source>Point at the picture first: what decided about the pixel there is said</source>
      <translation>Zuerst auf das Bild zeigen: Gesagt wird, was über das Pixel dort entschied</translation>
    </message>
    <message>
      <source>Soft proof of {name}; magenta is outside its gamut</source>
      <translation>Softproof von {name}; Magenta liegt außerhalb des Farbumfangs</translation>
    </message>
    <message>
      <source>No soft proof</source>
      <translation>Kein Softproof</translation>
    </message>
    <message>
      <source>Place lost on this frame: {lost}; take the sample again here.</source>
      <translation>Stelle auf diesem Bild verloren: {lost}; die Probe hier neu nehmen.</translation>
    </message>
    <message>
      <source>Hair and fringe</source>
      <translation>Haare und Fransen</translation>
    </message>
  </context>
</TS>