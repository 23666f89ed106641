# frozen_string_literal: true

module Mordant
  module CommandLine
    # Pictures that a command is given and makes: a still, a sequence named by a pattern
    # (in.%04d.png) or a video in; stills, one or as many as there are frames, out.
    class Pictures
      WRITTEN = %w[.png .tif .tiff .dpx .exr].freeze
      PATTERN = /%0?\d*d/

      # @param source [String]
      # @param target [String, nil] nil where nothing is written
      # @raise [Usage, MediaError]
      def initialize(source, target = nil)
        unless target.nil? || WRITTEN.include?(File.extname(target).downcase)
          raise MediaError.new(target, "a still is written as one of #{WRITTEN.join(", ")}")
        end
        @target = target
        @still = !source.match?(/[\[%]/) && Media::Stills::READABLE.include?(File.extname(source).downcase)
        single = !source.match?(/[\[%]/) && (@still || %w[.exr .dpx].include?(File.extname(source).downcase))
        raise Usage, "a sequence needs a numbered OUT, such as out.%04d.png" unless target.nil? || single || target.match?(PATTERN)

        @still ? @picture = Media::Stills.read(source) : open_clip(source)
      end

      # @return [Boolean] values are floats as they are in the file
      def floats? = !@still && @reader.coding.float?

      # @param id [String] of an encoding
      # @return [String] what its codes are in
      def encoding(id) = Colour.encoding(id).id.then { |known| floats? ? "#{Colour::Encoding::FLOATS}#{known}" : known }

      # @param window [Integer] frames before and after that are wanted with each
      # @yieldparam codes [Media::Codes]
      # @yieldparam around [#call, nil] see Grade::Moment.of
      # @yieldparam index [Integer] from 0
      # @yieldparam path [String, nil] of the picture to make, which is not there yet
      # @raise [MediaError]
      def each(window: 0)
        return yield @picture, nil, 0, fresh(@target) if @still

        index = 0
        Media::Surrounded.each(@reader, wanted: 0...@facts.frames, frames: @facts.frames, window:, width: @facts.width, height: @facts.height) do |codes, around|
          yield codes, around, index, fresh(@target&.match?(PATTERN) ? format(@target, @number + index) : @target)
          index += 1
        end
      end

      # @param frame [Frame] codes or, in OpenEXR, light
      # @param path [String]
      # @raise [MediaError]
      def write(frame, path)
        facts = Media::FrameFacts.new(rate: @facts&.rate || Media::Probe::SEQUENCE_RATE, name: File.basename(path), written: Time.now)
        case File.extname(path).downcase
        when ".exr" then File.binwrite(path, Media::EXR.new(primaries: Colour.encoding(frame.encoding).primaries || Colour::Primaries::AP0, rate: facts.rate).encode(frame))
        when ".dpx" then File.binwrite(path, Media::Dpx.new(bits: 16).encode(frame, facts))
        else Media::Stills.write(frame, path)
        end
      end

      private

      def open_clip(source)
        if source.include?("%")
          found = Media::Sequence.find(source) or raise MediaError.new(source, "there are no such numbered frames")
          source = found.path
        end
        probe = Media::Probe.new(source)
        @facts, @number = probe.facts, Media::Sequence.parse(source)&.first || 0
        @reader = Media::Reader.new(source, rate: @facts.rate, facts: @facts, index: -> { probe.index })
      end

      def fresh(path)
        raise MediaError.new(path, "it exists; nothing is overwritten") if path && File.exist?(path)

        path
      end
    end
  end
end
