# frozen_string_literal: true

module Server
  # A file or sequence that was taken in, or refused with a reason; or what stands for footage that is
  # not there: a slate, counted from timecode 00:00:00:00, or black.
  class Clip < Record
    include Undoable

    KEPT = %w[encoding encoding_reason range].freeze
    # How a clip of another rate than the project's is taken.
    PACES = {"frames" => "frame for frame", "time" => "by time"}.freeze

    belongs_to :project
    belongs_to :media_root, optional: true
    belongs_to :filled_by, class_name: "Server::Clip", optional: true
    has_many :shots

    # What a clip nobody has assigned is shown as, so that it can be looked at.
    UNASSIGNED = "rec709-bt1886"

    BY_HAND = "assigned by hand"

    PLACEHOLDERS = %w[missing black].freeze
    BLACK = "black"
    DAY = 24 * 3600 # seconds that a placeholder lasts

    scope :ready, -> { where(status: "ready") }
    scope :taken_in, -> { where.not(status: PLACEHOLDERS) }

    class << self
      # @return [Clip] black without end, of a project
      def black(project) = find_by(project:, status: "black") || create!(status: "black", path: BLACK, **nothing(project))

      # @param name [String] what is missing
      # @return [String] as a slate keeps it
      def slate_path(name) = name.to_s.delete_prefix("/")[0, LONGEST_NAME]

      # @param reel [String] as a list has it
      # @param name [String] what is missing
      # @return [Clip] a slate; the same one for the same reel and name
      def missing(project, reel:, name:)
        path = slate_path(name)
        find_by(project:, status: "missing", reel:, path:) || create!(status: "missing", reel:, path:, start_timecode: "00:00:00:00", **nothing(project))
      end

      private

      def nothing(project)
        {project:, width: project.width, height: project.height, rate_numerator: project.rate_numerator, rate_denominator: project.rate_denominator,
         frames: (DAY * project.rate).to_i, file_frames: (DAY * project.rate).to_i, encoding: UNASSIGNED, encoding_reason: "stands for footage"}
      end
    end
    LONGEST_NAME = 200 # characters

    def ready? = status == "ready"

    def missing? = status == "missing"

    def black? = status == "black"

    # @return [Boolean] no file stands behind it
    def placeholder? = PLACEHOLDERS.include?(status)

    def assigned? = !encoding.nil?

    def by_hand? = encoding_reason == BY_HAND

    # @return [Hash] what rules of assignment look at
    def facts
      {"camera" => camera, "folder" => [media_root.label, File.dirname(path)].join("/").delete_suffix("/."), "codec" => codec,
       "primaries" => primaries, "transfer" => transfer, "encoding" => declared_encoding}
    end

    # @return [String] encoding id of its values
    def source_encoding = encoding || UNASSIGNED

    # @return [String] encoding id of the codes that its frames are decoded as
    def code_encoding = floats? ? "#{Mordant::Colour::Encoding::FLOATS}#{source_encoding}" : source_encoding

    def floats? = pixel_format.to_s.include?("f32")

    # @return [Rational] frames a second of its file
    def rate = Rational(rate_numerator, rate_denominator)

    # @return [Boolean] frames are left out or stand for longer, so that it keeps its length
    def paced? = pace == "time" && rate != project.rate

    # @return [Mordant::Media::Sequence, nil] of a run of numbered frames
    def run = @run ||= (Mordant::Media::Sequence.parse(file) unless placeholder?)

    # @return [String] what it is called, without ending and number
    def stem = run? ? run.name : Names.shown(File.basename(path, ".*"))

    def run? = !placeholder? && Mordant::Media::Sequence::BRACKETED.match?(File.basename(path))

    # @return [String] absolute path; of a sequence, with its brackets
    # @raise [Mordant::MediaError] of one that is gone
    def file
      folder, name = File.split(path)
      return media_root.resolve(path) unless Mordant::Media::Sequence::BRACKETED.match?(name)

      File.join(media_root.resolve((folder == ".") ? "" : folder), Names.bytes(name))
    rescue Mordant::ParameterError
      raise Mordant::MediaError.new(path, "it is not in the folder #{media_root.label}, or may not be read; put it back, or link its shots to other footage")
    end

    # What changes when its file is written again; of a run its ends, and its folder, as files
    # come and go.
    #
    # @return [Array<String>]
    # @raise [Mordant::MediaError] of a file that is gone
    def stamps
      return [status, path, reel, reason].map(&:to_s) if placeholder?

      files = run? ? [File.dirname(file), run.first_file.to_s, run.last_file.to_s] : [file]
      files.map { |path| Mordant::Media::FrameIndex.stamp(path) }
    end

    # @return [Mordant::Media::Reader, Mordant::Media::Paced] of its original
    def reader = pacing(original)

    # @return [Mordant::Media::Reader, Mordant::Media::Placeholder] frame for frame
    def original
      return Mordant::Media::Placeholder.new(slate) if placeholder?

      told = Mordant::Media::Facts.new(width:, height:, pixel_format:, matrix:, primaries:, range: declared_range)
      Mordant::Media::Reader.new(file, rate:, range:, facts: told, fit:, index: -> { self.class.connection_pool.with_connection { ClipIndex.of(self) } })
    end

    # @param reader [Mordant::Media::Reader] of all frames of its file
    # @return [Mordant::Media::Reader, Mordant::Media::Paced]
    def pacing(reader) = paced? ? Mordant::Media::Paced.new(reader, from: rate, to: project.rate, size: file_frames) : reader

    # @return [Integer] frames since midnight of its first frame, at its own rate; 0 without timecode
    def start_frames = start&.frames.to_i

    # @return [Mordant::Cut::Timecode, nil] of its first frame, at its own rate
    def start
      Mordant::Cut::Timecode.parse(start_timecode, rate) if start_timecode
    rescue Mordant::ParameterError
      nil # a timecode that does not fit the rate orders nothing
    end

    # @param frame [Integer] as shots count it
    # @return [Mordant::Cut::Timecode] of its file, at its own rate; from 00:00:00:00 without one
    def timecode(frame)
      at = paced? ? pacing(nil).at(frame) : frame
      (start || Mordant::Cut::Timecode.parse("00:00:00:00", rate)) + at
    end

    # @return [String] what a shot of it is called, and its scene
    def title = take || stem

    def setting = scene ? "Scene #{scene}" : reel.to_s

    # @return [Boolean] its pictures have another shape than the project's
    def other_shape? = ready? && project.fixed && (width * project.height - height * project.width).abs > [width, project.width].max

    # @param fit [String] one of Mordant::Media::Coding::FITS
    # @raise [Mordant::ParameterError]
    def take_fit(fit)
      raise Mordant::ParameterError.new(path: "fit", expected: Mordant::Media::Coding::FITS.keys.join(", "), found: fit) unless Mordant::Media::Coding::FITS.key?(fit)

      update!(fit:)
    end

    # @return [Integer, nil] number of its first file; nil of what is no run
    def first_number = (run.first if run?)

    # @param pace [String] one of PACES
    # @raise [Mordant::ParameterError] of one in use by a cut
    def take_pace(pace)
      raise Mordant::ParameterError.new(path: "pace", expected: PACES.keys.join(" or "), found: pace) unless PACES.key?(pace)
      return if pace == self.pace

      unused("pace", "another pace")
      self.pace = pace
      update!(frames: paced? ? Mordant::Media::Paced.frames(file_frames, from: rate, to: project.rate) : file_frames)
    end

    # @param text [String] frames a second of a run of frames, such as "25" or "30000/1001"
    # @raise [Mordant::ParameterError]
    def take_rate(text)
      raise Mordant::ParameterError.new(path: "rate", expected: "a run of numbered frames; a video has its own rate", found: path) unless run?

      rate = Rate.parse(text)
      unused("rate", "another rate") if pace == "time"
      update!(rate_numerator: rate.numerator, rate_denominator: rate.denominator, rate_by_hand: true)
      update!(frames: paced? ? Mordant::Media::Paced.frames(file_frames, from: rate, to: project.rate) : file_frames)
    end

    # Takes it out of the project; its file stays.
    #
    # @raise [Mordant::ParameterError] of one in use by a cut
    def remove
      unused("clips", "it taken out")
      destroy!
    end

    # @return [Boolean] its file has another rate than the project, or an uneven one; a project
    #   without a cut may take its rate yet
    def other_rate? = ready? && (variable || (project.fixed && rate != project.rate))

    def to_h
      {id:, root: media_root_id, path:, name: Names.shown(File.basename(path)), status:, reason:, width:, height:,
       rate: rate_numerator ? rate.to_s : nil, variable:, other_rate: other_rate?, pace:, other_shape: other_shape?, fit:, frames:, file_frames:, gaps:, run: run?, first_number: run? ? File.basename(path)[Mordant::Media::Sequence::BRACKETED, :first].to_i : nil, start: start_timecode, start_frames:, drop: start&.drop? || false, reel:, codec:, pixel_format:, bit_depth:, range:, declared_range:,
       tags: [primaries, transfer, matrix].compact.join("/"), camera:, scene:, take:, encoding:, encoding_reason:, floats: floats?, version: updated_at&.to_f,
       copy: {wanted: copying, status: copy_status, done: copy_done, speed: decoding_speed && (decoding_speed / rate).to_f.round(2)}}
    end

    private

    # What a slate says.
    def slate = black? ? [] : [stem, *("reel #{reel}" if reel.present? && reel != stem), "not there yet", *reason]

    def unused(field, what)
      cuts = Cut.where(id: shots.select(:cut_id)).or(Cut.where(reference_clip_id: id)).pluck(:name) | MatteUses.cuts_of(self)
      return if cuts.empty?

      raise Mordant::ParameterError.new(path: field, expected: "a clip that no cut uses, to have #{what}", found: "#{File.basename(path)} in #{cuts.join(", ")}")
    end
  end
end
