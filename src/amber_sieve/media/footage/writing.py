"""Writing clips: H.264 or ProRes 422 HQ, colour tags set, sound carried over."""

from __future__ import annotations

import contextlib
import pathlib
from dataclasses import dataclass
from fractions import Fraction
from typing import Any

import av
import numpy as np
from av.video.format import VideoFormat
from av.video.frame import VideoFrame
from av.video.reformatter import ColorRange, Interpolation

from ...core.changed import changed_pixels, take_changed
from ...core.colour import encodings
from ...core.colour.gamut import lower_chroma
from ...core.colour.luma_chroma import to_samples
from ...core.edge.box import box_of
from ...core.mix import Mixture
from ...errors import Trouble
from ...files import Checked
from ...language import translator
from ..colour import spaces as colour_spaces
from ..formats import CODECS, QUALITY, codecs_with_alpha, container_of
from .clip import Footage
from .decoded import UNSPECIFIED, converted, matrix_of, plane_of, range_of, samples_of

translate = translator("footage")


#: What is laid over a frame begins at multiples of this many pixels and has as many to spare, so
#: that chroma falls as in a whole one.
BLOCK = 16
#: Samples of plain sound a second.
PLAIN_RATE = 48_000


def crf_of(quality: int) -> str:
    """The constant rate factor of a quality from 1 to 100: 50 for the worst, 1 for the best."""
    return str(round(51 - quality / 2))


def _plane(frame: VideoFrame, index: int) -> np.ndarray:
    """One plane of a frame (H, W), shared with it."""
    return plane_of(frame, index)[:, : frame.planes[index].width]


class SoundTrack:
    """The sound of a stretch of a clip, copied without coding, or as plain samples where the file
    takes nothing else.

    `open` before the first packet is written, `mux` after the last picture, `close` in any case.
    """

    def __init__(self, footage: Footage, first: int, last: int | None, plain: bool = False) -> None:
        try:
            self._container = av.open(str(footage.path))
        except (av.FFmpegError, OSError):
            raise Trouble(
                translate(
                    "The sound of {path} cannot be read any more: bring the clip back, or export "
                    "without sound.",
                    path=footage.path,
                )
            ) from None
        self._start = footage.stamps[first] * footage.time_base
        self._end = (
            footage.stamps[last] * footage.time_base + 1 / footage.rate
            if last is not None
            else None
        )
        self._plain = plain
        self._streams: list[tuple[Any, Any]] = []

    def open(self, out: Any) -> None:
        """Make its streams in the file that is written."""
        for audio in self._container.streams.audio:
            made = (
                out.add_stream("pcm_s16le", rate=PLAIN_RATE, layout="stereo")
                if self._plain
                else out.add_stream_from_template(audio)
            )
            self._streams.append((audio, made))

    def mux(self, out: Any) -> None:
        """Write all of it."""
        for audio, target in self._streams:
            self._container.seek(0)
            if self._plain:
                self._mux_plain(out, audio, target)
                continue
            shift = round(self._start / audio.time_base)
            for packet in self._container.demux(audio):
                if (
                    packet.pts is None
                    or packet.pts < shift
                    or (self._end is not None and packet.pts * audio.time_base >= self._end)
                ):
                    continue
                packet.pts, packet.dts, packet.stream = (
                    packet.pts - shift,
                    (packet.dts or packet.pts) - shift,
                    target,
                )
                out.mux(packet)

    def _mux_plain(self, out: Any, audio: Any, target: Any) -> None:
        resampler = av.AudioResampler("s16", "stereo", PLAIN_RATE)
        for frame in self._container.decode(audio):
            at = frame.pts * audio.time_base if frame.pts is not None else Fraction(0)
            if at < self._start or (self._end is not None and at >= self._end):
                continue
            for made in resampler.resample(frame):
                made.pts = None
                out.mux(target.encode(made))
        out.mux(target.encode(None))

    def close(self) -> None:
        """Let go of the clip."""
        self._container.close()


@dataclass(frozen=True)
class ClipForm:
    """The form in which a clip is written.

    Attributes
    ----------
    size : width and height. rate : frames a second. codec : its name, see ``CODECS``.
    quality : 1 to 100, of codecs that have one. alpha : the mask goes in as alpha. sound : the
        source's goes along.
    gamut : how colours are brought back that lie outside it. display : that of OpenColorIO it is
        seen through, "" for none.
    timecode : of its first frame, "" for none.
    """

    size: tuple[int, int]
    rate: Fraction
    codec: str
    quality: int = QUALITY
    alpha: bool = False
    sound: bool = True
    gamut: str = "lower chroma"
    display: str = ""
    timecode: str = ""


class ClipWriter:
    """Encodes frames one after another; `finish` finishes the file, `close` lets go of it.

    ``footage`` is the clip that is changed, whose pace, colour tags and sound go along from its
    frame ``first`` to its frame ``last``.
    """

    def __init__(
        self,
        path: pathlib.Path,
        footage: Footage | None,
        form: ClipForm,
        first: int = 0,
        last: int | None = None,
    ) -> None:
        codec, rate, size, alpha = form.codec, form.rate, form.size, form.alpha
        chosen = CODECS[codec]
        if alpha and not chosen.alpha:
            raise Trouble(
                translate(
                    "{codec} holds no alpha: write {codecs}.",
                    codec=codec,
                    codecs=translate(" or ").join(codecs_with_alpha()),
                )
            )
        encoder, self.pixel_format = chosen.encoder, chosen.alpha if alpha else chosen.pixels
        options = dict(chosen.options) | ({"crf": crf_of(form.quality)} if chosen.quality else {})
        self._footage, self._first = footage, first
        width, height = size
        if self.pixel_format.startswith("yuv420p") and (width % 2 or height % 2):
            raise Trouble(
                translate(
                    "{codec} needs an even width and height, this is {width} x {height}: write "
                    "ProRes 422 HQ (.mov) or single pictures.",
                    codec=codec,
                    width=width,
                    height=height,
                )
            )
        self._file, self._kind = Checked(path), path.suffix.lower()
        self._out = av.open(self._file, "w", format=container_of(path))
        self._video: Any = self._out.add_stream(encoder, rate, options=options)
        self._video.width, self._video.height, self._video.pix_fmt = (
            width,
            height,
            self.pixel_format,
        )
        if form.timecode:
            self._video.metadata["timecode"] = form.timecode
        context = self._video.codec_context
        #: MXF takes plain samples of sound only, and frames at an even pace.
        self._plain = path.suffix.lower() == ".mxf"
        if footage:
            self.matrix, self.range = matrix_of(footage.matrix, height), ColorRange.MPEG
            self.primaries, self.curve = footage.primaries, footage.curve
            self._even = self._plain or footage.odd_rate
            self._base = 1 / rate if self._even else footage.time_base
            context.time_base = self._base
            self._video.time_base = self._base
        else:
            self.matrix, self.range, self.primaries, self.curve = (
                matrix_of(UNSPECIFIED, height),
                ColorRange.MPEG,
                UNSPECIFIED,
                UNSPECIFIED,
            )
            self._base, self._even = 1 / rate, True
        context.colorspace, context.color_range = self.matrix, int(self.range)
        # What is not said is written as it was read.
        context.color_primaries = self.primaries if self.primaries != UNSPECIFIED else 1
        context.color_trc = (
            self.curve if self.curve != UNSPECIFIED else 1 if self.matrix == 1 else 6
        )
        self._sound: SoundTrack | None = None
        try:
            context.open(strict=False)
        except av.FFmpegError:
            self.close()
            raise Trouble(
                translate(
                    "{codec} does not take pictures of {width} x {height}: choose another codec.",
                    codec=codec,
                    width=width,
                    height=height,
                )
            ) from None
        self._samples = samples_of(VideoFormat(self.pixel_format), self.matrix, False)
        self._gamut, self._display = form.gamut, form.display
        if footage and form.sound:
            try:
                self._sound = SoundTrack(footage, first, last, self._plain)
            except Trouble:
                self.close()
                raise
            self._sound.open(self._out)

    def untouched(self, decoded: VideoFrame) -> VideoFrame:
        """A frame of the source as it is, in the pixel format that is written."""
        return converted(
            decoded,
            format=self.pixel_format,
            src_colorspace=None,
            dst_colorspace=None,
            src_color_range=range_of(decoded),
            dst_color_range=range_of(decoded),
            interpolation=Interpolation.BILINEAR | Interpolation.ACCURATE_RND,
        )

    def pictured(
        self,
        decoded: VideoFrame | None,
        result: np.ndarray | Mixture,
        before: np.ndarray,
        alpha: np.ndarray | None = None,
    ) -> VideoFrame:
        """A frame ready to be encoded by `add`; may be called from several threads at once.

        Parameters
        ----------
        decoded : the source frame, if the source is a clip.
        result, before : (3, H, W) float32 linear light after and before the adjustments. Where they
            are equal, the encoder gets the source's own samples, so nothing outside the mask passes
            through RGB and back. What is still to be mixed is mixed only in the rows that it may
            change.
        alpha : (H, W) float32, where the clip is written with alpha.
        """
        if decoded is None or self._display:
            frame = self._frame_of(
                self._codes_of(result if isinstance(result, np.ndarray) else result.whole())
            )
        elif result is before:
            frame = self.untouched(decoded) if alpha is None else _copied(self.untouched(decoded))
        else:
            frame = _copied(self.untouched(decoded))
            first, planes = _rows_of(result, before)
            self._lay_over(frame, planes, changed_pixels(planes, before, first), first)
        if alpha is not None:
            _plane(frame, 3)[...] = np.rint(alpha * (2 ** frame.format.components[3].bits - 1))
        return frame

    def _lay_over(
        self, frame: VideoFrame, planes: np.ndarray, changed: np.ndarray, first: int
    ) -> None:
        """Code what has changed of a picture, of which the rows from a ``first`` one on are given,
        into a frame: only the box that holds it passes through RGB.
        """
        box = box_of(changed.view(np.uint8), 1, BLOCK)
        if box is None:
            return
        top, left = (part.start // BLOCK * BLOCK for part in box)
        here = np.s_[top : box[0].stop, left : box[1].stop]
        part, where = (
            to_samples(self._codes_of(np.ascontiguousarray(planes[:, *here])), self._samples),
            changed[here],
        )
        for index, source in enumerate(part):
            target = _plane(frame, index)
            down, across = -(-frame.height // target.shape[0]), -(-frame.width // target.shape[1])
            held = target[(first + top) // down :, left // across :][
                : source.shape[0], : source.shape[1]
            ]
            take_changed(held, source, where)

    def mask_pictured(self, mask: np.ndarray) -> VideoFrame:
        """A mask (H, W) as a frame: grey codes from nothing to all, not gamma-coded."""
        return self._frame_of(np.repeat(mask[None], 3, axis=0))

    def _codes_of(self, planes: np.ndarray) -> np.ndarray:
        """Linear light (3, H, W) as codes, inside the gamut."""
        plain = (
            self.curve not in (encodings.PQ, encodings.HLG, encodings.LINEAR)
            and encodings.to_rec_709(self.primaries) is None
        )
        if self._gamut == "lower chroma" and plain:
            planes = lower_chroma(planes)
        if self._display:
            return colour_spaces.to_display(planes, self._display)
        return encodings.coded(planes, self.curve, self.primaries)

    def _frame_of(self, codes: np.ndarray) -> VideoFrame:
        """Codes (3, H, W) in the clip's pixel format."""
        frame = VideoFrame(codes.shape[2], codes.shape[1], self.pixel_format)
        for index, values in enumerate(to_samples(codes, self._samples)):
            _plane(frame, index)[...] = values
        return frame

    def add(self, number: int, frame: VideoFrame) -> None:
        """Encode a frame as frame ``number``, after those before it."""
        if self._footage is not None and not self._even:
            frame.pts = self._footage.stamps[number] - self._footage.stamps[self._first]
        else:
            frame.pts = number - self._first
        frame.time_base = self._base
        # The encoder believes the first frame's tags over its own context.
        context = self._video.codec_context
        frame.colorspace, frame.color_range = self.matrix, self.range
        frame.color_primaries, frame.color_trc = context.color_primaries, context.color_trc
        self._mux(frame)
        self._file.check()

    def _mux(self, frame: VideoFrame | None) -> None:
        try:
            self._out.mux(self._video.encode(frame))
        except av.FFmpegError as error:
            self._file.check()  # a full disk is no fault of the container
            raise Trouble(
                translate(
                    "These frames cannot be written into {kind} ({strerror}): choose another kind "
                    "of file.",
                    kind=self._kind,
                    strerror=error.strerror,
                )
            ) from None

    def finish(self) -> None:
        """Finish the pictures, then the sound of the same stretch; raises OSError when not all of
        it reached the disk.
        """
        self._mux(None)
        if self._sound is not None:
            self._sound.mux(self._out)
        self.close()
        self._file.check()

    def close(self) -> None:
        """Let go of everything; what was not finished is of no use."""
        with contextlib.suppress(av.FFmpegError, OSError):
            self._out.close()
        if self._sound is not None:
            self._sound.close()
        with contextlib.suppress(OSError):
            self._file.close()


def _rows_of(result: np.ndarray | Mixture, before: np.ndarray) -> tuple[int, np.ndarray]:
    """The rows of a result that may differ from what was before, from the border of a block on: the
    first of them, and their light.
    """
    if isinstance(result, np.ndarray):
        return 0, result
    top, bottom = result.changed_rows if result.planes is before else (0, result.height)
    top = top // BLOCK * BLOCK
    return top, result.rows(top, bottom)


def _copied(frame: VideoFrame) -> VideoFrame:
    """A frame that can be written to: a decoder still looks at its own."""
    out = VideoFrame(frame.width, frame.height, frame.format.name)
    for index in range(len(frame.planes)):
        _plane(out, index)[...] = _plane(frame, index)
    return out
