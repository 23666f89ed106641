# frozen_string_literal: true

module Mordant
  module Deliver
    module Formats
      # H.265 with the static metadata of HDR10: ST 2084 over BT.2020, mastering display
      # (SMPTE ST 2086) and light levels (CTA-861).
      class Hdr10 < VideoFormat
        named "hdr10", "H.265, HDR10", extension: ".mp4", bits: 10, about: "MP4, 10 bit 4:2:0, with mastering display and light levels"
        encoded pixels: "yuv420p10le", encoder: %w[-c:v libx265 -preset medium -crf 12 -tag:v hvc1], container: %w[-movflags +faststart+use_metadata_tags -f mp4],
          slim: %w[-preset superfast -crf 8] # nearer than the smaller ones, a seventh larger, in less than half the time

        CHROMATICITY = 50_000 # units of one
        LUMINANCE = 10_000 # units of one cd/m2
        DARKEST = 0.0001 # cd/m2
        PEAK = 1000
        SLIM = %w[frame-threads=1 rc-lookahead=1 bframes=0 ref=1].freeze # of large pictures, by which it holds few of them

        class << self
          def ranges = [Colour::SignalRange::LEGAL]

          def refusal(view)
            "a target of BT.2100 PQ for HDR10" unless view.encoding == "rec2100-pq"
          end

          def encoder(sheet, light: nil)
            cll = light || {cll: 0, fall: 0}
            parameters = ["log-level=error", "hdr10=1", "repeat-headers=1", "colorprim=bt2020", "transfer=smpte2084", "colormatrix=bt2020nc", "range=limited",
              "master-display=#{mastering(sheet.view)}", "max-cll=#{cll[:cll].ceil},#{cll[:fall].ceil}", *(SLIM if sheet.large?)]
            super + ["-x265-params", parameters.join(":")]
          end

          # @param view [Grade::View] its gamut limit and peak are those of the mastering display; of a rendition those of its target
          # @return [String] as x265 wants it
          def mastering(view)
            primaries = view.limit ? Colour::GamutLimit::ALL.fetch(view.limit) : limited(view.rendering)
            units = ->((x, y)) { format("(%<x>d,%<y>d)", x: (x * CHROMATICITY).round, y: (y * CHROMATICITY).round) }
            peak = view.aim&.peak || (view.rendering && Colour.rendering(view.rendering).peak) || PEAK
            black = [view.aim&.black || DARKEST, DARKEST].max
            "G#{units[primaries.green]}B#{units[primaries.blue]}R#{units[primaries.red]}WP#{units[primaries.white]}L(#{(peak * LUMINANCE).round},#{(black * LUMINANCE).round})"
          end

          private

          def limited(rendering) = rendering.to_s.include?("p3lim") ? Colour::Primaries::P3_D65 : Colour::Primaries::REC2020
        end
      end
    end
  end
end
