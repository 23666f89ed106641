# frozen_string_literal: true

module Mordant
  module Deliver
    # What containers call the colours of an encoding: primaries, transfer and matrix in
    # ffmpeg's words for the code points.
    #
    # Source: ITU-T H.273 (07/2021), tables 2 to 4. A pure power of 2.6 has no code point.
    module ColourTags
      UNTOLD = "unknown"
      TAGS = {
        "rec709-bt1886" => %w[bt709 bt709 bt709],
        "rec709-g2.2" => %w[bt709 bt470m bt709],
        "srgb" => %w[bt709 iec61966-2-1 bt709],
        "rec2020-bt1886" => %w[bt2020 bt2020-10 bt2020nc],
        "rec2100-pq" => %w[bt2020 smpte2084 bt2020nc],
        "rec2100-hlg-1000nit" => %w[bt2020 arib-std-b67 bt2020nc],
        "p3-d65-st2084" => %w[smpte432 smpte2084 bt2020nc],
        "p3-d65-srgb" => %w[smpte432 iec61966-2-1 bt709],
        "p3-d65-g2.6" => ["smpte432", UNTOLD, "bt709"],
        "p3-dci-g2.6" => ["smpte431", UNTOLD, "bt709"],
        "dcdm-xyz" => %w[smpte428 smpte428 bt709]
      }.freeze

      # @param encoding [String] id
      # @return [Array<String>] primaries, transfer, matrix
      def self.of(encoding) = TAGS.fetch(encoding) { [UNTOLD, UNTOLD, "bt709"] }
    end
  end
end
