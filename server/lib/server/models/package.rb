# frozen_string_literal: true

module Server
  # The looks of a cut as one file to take along, made by a worker; see LookPackage.
  class Package < Record
    LIVE = %w[waiting running].freeze
    KEPT = 3 # of a cut

    belongs_to :cut

    # @param wish [Hash] arguments of LookPackage, with "target" instead of the view
    # @return [Package] queued; older ones go
    # @raise [Mordant::ParameterError]
    def self.place(cut, wish)
      package = new(cut:, wish:)
      package.count = package.looks.count
      transaction do
        where(cut:, status: LIVE).update_all(status: "cancelled")
        package.save!
        where(cut:).order(id: :desc).offset(KEPT).each(&:remove)
        PackageJob.enqueue(package.id)
      end
      package
    end

    # @return [LookPackage]
    # @raise [Mordant::ParameterError]
    def looks
      @looks ||= LookPackage.new(cut, **wish.symbolize_keys.except(:target), view: target&.view)
    end

    # @return [String] absolute
    def file = File.join(Package.folder, "#{id}.tar")

    def self.folder = File.join(Settings.var, "packages")

    def live? = Package.exists?(id:, status: LIVE)

    def cancel = Package.where(id:, status: LIVE).update_all(status: "cancelled")

    def remove
      FileUtils.rm_f(file)
      destroy!
    end

    # @return [Target, nil]
    # @raise [Mordant::ParameterError]
    def target
      id = wish.symbolize_keys[:target] or return

      targets = cut.project.views
      targets.find { |one| one.id == id } || raise(Mordant::ParameterError.new(path: "target", expected: targets.map(&:id).join(", "), found: id))
    end

    def to_h = {id:, cut: cut_id, status:, count:, done:, message:}
  end
end
