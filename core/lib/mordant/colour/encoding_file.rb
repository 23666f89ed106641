# frozen_string_literal: true

module Mordant
  module Colour
    # A person's own encoding, described in a text file (YAML) named after its id;
    # docs/encodings.md says what stands in one.
    class EncodingFile
      EXTENSION = ".yml"
      KNOWN_PRIMARIES = [Primaries::AP0, Primaries::AP1, Primaries::REC709, Primaries::REC2020, Primaries::P3_D65].to_h { |one| [one.name, one] }.freeze
      # How far a curve may be from the mid grey the file states.
      TOLERANCE = 0.002 # code

      # @param path [String]
      # @return [Encoding] not registered
      # @raise [FormatError, MediaError]
      def self.read(path) = new(Outline.read(path)).encoding

      # @param outline [Outline]
      def initialize(outline)
        @outline = outline
      end

      def encoding
        @outline.allow("id", "label", "source", "light", "primaries", "adaptation", "codes", "curve", "mid_grey")
        transfer = ranged(EncodingCurve.read(@outline.within("curve")))
        made = Encoding.new(id:, label: @outline.text("label"), source: @outline.text("source", default: @outline.path),
          kind:, primaries:, transfer:, own: true, **Encoding.ways(transfer, matrix))
        check(made)
        made
      end

      private

      def id
        found = @outline.text("id", pattern: /\A[a-z0-9][a-z0-9.-]*\z/)
        name = File.basename(@outline.path, EXTENSION)
        return found if found == name

        @outline.fault("id: #{name}, as the file is named", found, @outline.line("id"))
      end

      def kind = (@outline.text("light", among: %w[scene display], default: "scene") == "scene") ? Encoding::SCENE : Encoding::DISPLAY

      def primaries
        @primaries ||= @outline.mapping?("primaries") ? own_primaries : KNOWN_PRIMARIES.fetch(@outline.text("primaries", among: KNOWN_PRIMARIES.keys))
      end

      def own_primaries
        part = @outline.within("primaries")
        part.allow("red", "green", "blue", "white")
        corners = %w[red green blue white].to_h { |name| [name.to_sym, part.numbers(name, 2)] }
        (x0, y0), (x1, y1), (x2, y2) = corners.values
        area = (x1 - x0) * (y2 - y0) - (x2 - x0) * (y1 - y0)
        part.fault("red, green and blue that span a gamut", corners.values.first(3)) if area.abs < 1e-4
        part.fault("a white with y above 0", corners[:white], part.line("white")) unless corners[:white][1].positive?
        Primaries.new(name: @outline.text("label"), **corners)
      end

      def matrix
        adaptation = @outline.text("adaptation", among: Adaptation::CONES.keys.map(&:to_s), default: "bradford").to_sym
        return primaries.to(Primaries::AP0, adaptation:) if kind == Encoding::SCENE

        Matrix3.multiply(Adaptation.matrix(primaries.white, White::D65), primaries.to_xyz)
      end

      def ranged(curve) = (@outline.text("codes", among: %w[full legal], default: "full") == "legal") ? Transfer::LegalRange.new(curve) : curve

      # The code the file states for mid grey is the one its numbers give.
      def check(made)
        return unless @outline.key?("mid_grey")

        stated = @outline.number("mid_grey")
        found = made.transfer.encode(Numo::DFloat[0.18])[0]
        return if (found - stated).abs <= TOLERANCE

        @outline.fault("a curve that takes light 0.18 to the stated code #{stated}", found.round(5), @outline.line("mid_grey"))
      end
    end
  end
end
