# frozen_string_literal: true

module Mordant
  module Deliver
    # A kind of output; descendants write one.
    class Kind
      # What every output needs to know. path is absolute; start is the timecode
      # of the first frame; range is "full" or "legal", of video; resume: an earlier
      # writer was interrupted.
      Job = Struct.new(:path, :width, :height, :rate, :start, :reel, :range, :resume, keyword_init: true)

      class << self
        attr_reader :id, :label, :about, :extension, :view

        # @return [Integer, nil] bits of its codes, of one that can be rendered in bulk;
        #   it then has bulk(Bulk, count) that yields how many frames are done
        attr_reader :bits

        # @param view [Grade::View] what frames must be in
        # @param sequence [Boolean] a folder of numbered files rather than one file
        def named(id, label, about:, extension:, view:, sequence: false, bits: nil)
          @id, @label, @about, @extension, @view, @sequence, @bits = id, label, about, extension, view, sequence, bits
        end

        def sequence? = @sequence

        # @return [Array<Class>] by id
        def all
          LOADER.eager_load_dir(File.join(__dir__, "kinds"))
          subclasses.sort_by(&:id)
        end

        # @raise [UnknownIdError]
        def fetch(id) = all.find { |kind| kind.id == id } || raise(UnknownIdError.new("output", id, all.map(&:id)))

        def to_h
          {id:, label:, about:, extension:, sequence: sequence?, encoding: view.encoding, rendering: view.rendering}
        end
      end

      attr_reader :job

      # @param job [Job]
      def initialize(job)
        @job = job
      end

      # @return [Integer] frames from the first on that an interrupted writer finished
      def finished_frames = 0
    end
  end
end
