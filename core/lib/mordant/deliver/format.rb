# frozen_string_literal: true

module Mordant
  module Deliver
    # A file format of outputs.
    class Format
      class << self
        attr_reader :id, :label, :about, :extension

        # @return [Integer, nil] bits of its codes; nil: it holds floats
        attr_reader :bits

        # @return [Array<String>] ids of the options it has, with their values: the first is taken by default
        attr_reader :options

        # @return [Array<String>] ranges of its codes, see Colour::SignalRange; the first is taken by default
        def ranges = [Colour::SignalRange::FULL]

        # @param bits [Integer, nil]
        # @param options [Hash{Symbol => Array<String>}] what else can be chosen
        def named(id, label, about:, extension:, bits:, options: {})
          @id, @label, @about, @extension, @bits, @options = id, label, about, extension, bits, options.freeze
        end

        # @return [Array<Integer>] width and height of the least raster that it can hold
        def least = [16, 16]

        def float? = bits.nil?

        # @return [Boolean] it takes Media::HalfPlanes
        def halves? = false

        # @return [Array<Class>] by id
        def all
          Mordant.load_folder(File.join(__dir__, "formats"))
          [SequenceFormat, VideoFormat].flat_map(&:subclasses).sort_by(&:id)
        end

        # @raise [UnknownIdError]
        def fetch(id) = all.find { |format| format.id == id } || raise(UnknownIdError.new("format", id, all.map(&:id)))

        # What it expects of a view that this one is not, in words.
        #
        # @param view [Grade::View]
        # @return [String, nil]
        def refusal(view) = nil

        # What somebody should know before it is written.
        #
        # @param view [Grade::View]
        # @return [Array<String>]
        def warnings(view)
          return [] if float? || !Colour.encoding(view.encoding).linear?

          ["#{Colour.encoding(view.encoding).label} needs floats: in #{label} all light above 1.0 and below 0.0 is cut off, and shadows have few codes"]
        end

        def to_h = {id:, label:, about:, extension:, sequence: sequence?, bits:, ranges:, options: options.transform_keys(&:to_s)}
      end
    end
  end
end
